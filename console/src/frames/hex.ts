import { t } from "@/language";
/** What is wrong with hex digits that somebody types; nothing while the field is empty. Blanks, colons and dashes do not count. */
export function hexProblem(text: string, digits: number): string {
  const clean = text.replace(/[\s:-]/g, "");
  if (!clean) {
    return "";
  }
  if (!/^[0-9a-f]*$/i.test(clean)) {
    return t("only the digits 0-9 and a-f");
  }
  return clean.length === digits
    ? ""
    : t("{needed} digits are needed, these are {given}", { needed: digits, given: clean.length });
}
