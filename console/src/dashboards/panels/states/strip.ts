import { said } from "@/language";
import { fixed } from "@/look/numbers";
import type { LimitSet, Look, Severity } from "@/api/types";
import { withGaps, type Drawn } from "@/chart/series";
import { wordFor } from "@/look/reading";
import { wordsFor, zoneOf } from "../look";

/** With more values than these a point is measured, not in states. */
const MOST_VALUES = 6;

/** A stretch of time in one state; of a point that has no states, a stretch with readings, without a name. */
export interface Stretch {
  from: number;
  until: number;
  name: string;
  severity: Severity | null;
  /** The number of the word, from 0, for states that are words and not zones; -1 for zones. */
  word: number;
}

/**
 * The states of a point over time: the words that stand for its values, else the zones of its limits, else the values
 * themselves if they are few. A value stands until the next one, but not across a gap, nor once it is bad.
 */
export function stretches(line: Drawn, set: LimitSet | undefined, look: Look | null, until: number): Stretch[] {
  const named = wordsFor(line.point, look);
  const few = new Set(line.values).size <= MOST_VALUES;
  const found: Stretch[] = [];
  const pairs = withGaps(line);
  pairs.forEach(([time, value], i) => {
    const end = pairs[i + 1]?.[0] ?? until;
    if (value === null || end <= time) {
      return;
    }
    const state = stateOf(value, set, named, few ? line.point.decimals : undefined);
    const last = found.at(-1);
    if (last?.until === time && last.name === state.name) {
      last.until = end;
    } else {
      found.push({ from: time, until: end, ...state });
    }
  });
  return found;
}

function stateOf(
  value: number,
  set: LimitSet | undefined,
  named: Record<string, string>,
  decimals: number | undefined,
) {
  const word = wordFor(value, named);
  if (word !== undefined) {
    return { name: word, severity: null, word: [...new Set(Object.values(named))].indexOf(word) };
  }
  const zone = Object.keys(named).length ? undefined : zoneOf(value, set);
  return zone
    ? { name: said(zone.label), severity: zone.severity, word: -1 }
    : { name: decimals === undefined ? "" : fixed(value, decimals), severity: null, word: value === 0 ? 0 : 1 };
}
