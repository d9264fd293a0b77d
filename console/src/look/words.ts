/** How many of something, in words: "2 rules". */
export function plural(many: number, one: string): string {
  return `${many} ${one}${many === 1 ? "" : "s"}`;
}
