import type { Waterfall } from "@/api/types";

type Rgb = [number, number, number];

/** The highest value of all rows; never 0, so that it can be divided by. */
export function greatest(rows: Waterfall["rows"]): number {
  return rows.reduce((most, row) => row.values.reduce((high, value) => Math.max(high, value), most), 0) || 1;
}

/** The parts of a colour that is written as #rrggbb. */
export function rgb(hex: string): Rgb {
  const number = parseInt(hex.replace("#", ""), 16) || 0;
  return [(number >> 16) & 255, (number >> 8) & 255, number & 255];
}

/** Between two colours; the root makes small lines visible beside a strong one. */
export function shade(share: number, low: Rgb, high: Rgb): Rgb {
  const at = Math.sqrt(Math.min(1, Math.max(0, share)));
  return [0, 1, 2].map((i) => Math.round((low[i] ?? 0) + at * ((high[i] ?? 0) - (low[i] ?? 0)))) as Rgb;
}

/** Where a scale is written on, at round numbers: four or five of them, each with its share of the way. */
export function roundTicks(from: number, until: number): { hz: number; at: number }[] {
  const rough = (until - from) / 6;
  const size = 10 ** Math.floor(Math.log10(rough));
  const step = size * ([1, 2, 5, 10].find((times) => times * size >= rough) ?? 10);
  const ticks = [];
  for (let hz = Math.ceil(from / step) * step; hz < until - step / 4; hz += step) {
    ticks.push({ hz, at: (hz - from) / (until - from) });
  }
  return ticks;
}
