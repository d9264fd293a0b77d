import { t } from "@/language";
/** Words for values as they are typed, one a line: "0 = shut". */
export function wordsText(words: Record<string, string>): string {
  return Object.entries(words)
    .map(([value, word]) => `${value} = ${word}`)
    .join("\n");
}

/** What was typed, or what is wrong with it. */
export function wordsOf(text: string): { words: Record<string, string>; problem?: string } {
  const words: Record<string, string> = {};
  for (const line of text.split("\n").filter((one) => one.trim())) {
    const match = /^\s*(-?\d+(?:\.\d+)?)\s*=\s*(.{1,40}?)\s*$/.exec(line);
    if (!match) {
      return {
        words: {},
        problem: t("Cannot read '{text}'. Write a number, = and a word, such as 0 = shut.", { text: line.trim() }),
      };
    }
    words[String(Number(match[1]))] = match[2] ?? "";
  }
  return { words };
}
