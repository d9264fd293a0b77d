import { t } from "@/language";
import { BAD, between, type Drawn } from "@/chart/series";

/** Where something was, and what was measured there. */
export interface Spot {
  time: number;
  latitude: number;
  longitude: number;
  value?: number;
}

/** A longer silence than this many usual steps is a break: no line is drawn across it. */
const BREAK_STEPS = 8;
const METRES_A_DEGREE = 111_320;

/** The newest value at or before a moment. */
function last(line: Drawn | undefined, time: number): number | undefined {
  for (let i = (line?.times.length ?? 0) - 1; i >= 0; i--) {
    if ((line?.times[i] ?? 0) <= time && line?.qualities[i] !== BAD) {
      return line?.values[i];
    }
  }
  return undefined;
}

/** Where something was, from its latitude and its longitude, which need not be read at the same moments. */
export function spots(latitude: Drawn, longitude: Drawn, value?: Drawn): Spot[] {
  return latitude.times.flatMap((time, i) => {
    const north = latitude.values[i];
    const east = between(longitude, time);
    return north === undefined || east === undefined || latitude.qualities[i] === BAD
      ? []
      : { time, latitude: north, longitude: east, value: last(value, time) };
  });
}

/** A track cut where nothing was heard for long. */
export function stretchesOf(track: Spot[]): Spot[][] {
  const steps = track.slice(1).map((spot, i) => spot.time - (track[i]?.time ?? 0));
  const usual = [...steps].sort((a, b) => a - b)[Math.floor(steps.length / 2)] ?? 0;
  const found: Spot[][] = [];
  track.forEach((spot, i) => {
    const current = found.at(-1);
    if (!current || (steps[i - 1] ?? 0) > usual * BREAK_STEPS) {
      found.push([spot]);
    } else {
      current.push(spot);
    }
  });
  return found;
}

/** From degrees to a drawing of that size, north up, with the same scale both ways. */
export interface Projection {
  x: (spot: { longitude: number }) => number;
  y: (spot: { latitude: number }) => number;
  metresAUnit: number;
}

const LEAST_METRES = 120;

/** So that everything is in view, with a margin; what stands still is shown with some ground around it. */
export function project(all: { latitude: number; longitude: number }[], width: number, height: number): Projection {
  const ends = (values: number[]) =>
    values.reduce(([low, high], value) => [Math.min(low, value), Math.max(high, value)] as const, [
      Infinity,
      -Infinity,
    ] as const);
  const [south, north] = ends(all.map((one) => one.latitude));
  const [west, east] = ends(all.map((one) => one.longitude));
  const [middleNorth, middleEast] = [(south + north) / 2, (west + east) / 2];
  const shrink = Math.max(0.01, Math.cos((middleNorth * Math.PI) / 180));
  const metres = {
    across: Math.max(LEAST_METRES, (east - west) * METRES_A_DEGREE * shrink),
    up: Math.max(LEAST_METRES, (north - south) * METRES_A_DEGREE),
  };
  const margin = 0.82;
  const metresAUnit = Math.max(metres.across / (width * margin), metres.up / (height * margin));
  return {
    x: (spot) => width / 2 + ((spot.longitude - middleEast) * METRES_A_DEGREE * shrink) / metresAUnit,
    y: (spot) => height / 2 - ((spot.latitude - middleNorth) * METRES_A_DEGREE) / metresAUnit,
    metresAUnit,
  };
}

/** A round length that is at most so many units of the drawing long: "500 m", "2 km". */
export function scaleBar(metresAUnit: number, most: number): { units: number; words: string } {
  const longest = metresAUnit * most;
  const power = 10 ** Math.floor(Math.log10(longest));
  const metres = ([5, 2].find((step) => step * power <= longest) ?? 1) * power;
  return {
    units: metres / metresAUnit,
    words: metres >= 1000 ? t("{kilometres} km", { kilometres: metres / 1000 }) : `${metres} m`,
  };
}
