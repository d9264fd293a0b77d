/** Hex as text, where every byte is a printable character; else nothing. */
export function asText(hex: string): string {
  const codes = hex.match(/../g)?.map((pair) => parseInt(pair, 16)) ?? [];
  return codes.length > 0 && codes.every((code) => code >= 0x20 && code < 0x7f) ? String.fromCharCode(...codes) : "";
}
