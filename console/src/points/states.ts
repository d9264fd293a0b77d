import { t } from "@/language";
import type { Point, StateWish } from "@/api/types";
import type { Bin } from "@/chart/spread";

/** States that a point can say: one for each of its words, on and off, or two ranges whose boundary is not known yet. */
export function statesFor(point: Point): StateWish[] {
  const words = Object.entries(point.words);
  if (words.length) {
    return words
      .map(([value, word]) => ({ name: word, is: Number(value), atLeast: null, below: null }))
      .sort((one, other) => one.is - other.is);
  }
  if (point.quantity === "switch") {
    return [
      { name: t("off"), is: 0, atLeast: null, below: null },
      { name: t("running"), is: 1, atLeast: null, below: null },
    ];
  }
  return [
    { name: t("standing"), is: null, atLeast: null, below: null },
    { name: t("running"), is: null, atLeast: null, below: null },
  ];
}

/** Whether a state is a range of values; otherwise it is one value. */
export function isRange(state: Pick<StateWish, "is">): boolean {
  return state.is === null || state.is === undefined;
}

/** What is missing or wrong with a state; undefined if nothing is. */
export function stateProblem(state: StateWish): string | undefined {
  if (!state.name.trim()) {
    return t("Each state needs a name.");
  }
  if (!isRange(state)) {
    return undefined;
  }
  const { atLeast = null, below = null } = state;
  if (atLeast === null && below === null) {
    return t('Enter from or below which value it is "{name}".', { name: state.name });
  }
  return atLeast !== null && below !== null && atLeast >= below
    ? t('"{name}": the first value must be less than the second.', { name: state.name })
    : undefined;
}

/** A class in which hardly any time was spent. */
const HARDLY = 0.005;
/** What lies on a side of a boundary is a state only if it took some time. */
const SOME = 0.03;

/**
 * The value that divides standing from running, by how long which values were there: in the middle of the widest stretch
 * in which there was hardly any. Undefined where nothing divides them.
 */
export function boundaryOf(bins: Bin[]): number | undefined {
  const all = bins.reduce((sum, bin) => sum + bin.seconds, 0);
  let best: { from: number; until: number } | undefined;
  let below = 0;
  for (let i = 0; i < bins.length; i++) {
    let end = i;
    while (end < bins.length && (bins[end]?.seconds ?? 0) <= all * HARDLY) {
      end++;
    }
    const [first, last] = [bins[i], bins[end - 1]];
    if (end > i && first && last) {
      const within = bins.slice(i, end).reduce((sum, bin) => sum + bin.seconds, 0);
      const isBetween = below >= all * SOME && all - below - within >= all * SOME;
      if (isBetween && (!best || last.until - first.from > best.until - best.from)) {
        best = { from: first.from, until: last.until };
      }
      below += within;
      i = end - 1;
    } else {
      below += bins[i]?.seconds ?? 0;
    }
  }
  return best && Number(((best.from + best.until) / 2).toPrecision(3));
}
