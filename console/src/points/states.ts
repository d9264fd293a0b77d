import type { Point, StateWish } from "@/api/types";

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
      { name: "off", is: 0, atLeast: null, below: null },
      { name: "running", is: 1, atLeast: null, below: null },
    ];
  }
  return [
    { name: "standing", is: null, atLeast: null, below: null },
    { name: "running", is: null, atLeast: null, below: null },
  ];
}

/** Whether a state is a range of values; otherwise it is one value. */
export function isRange(state: StateWish): boolean {
  return state.is === null || state.is === undefined;
}

/** What is missing or wrong with a state; undefined if nothing is. */
export function stateProblem(state: StateWish): string | undefined {
  if (!state.name.trim()) {
    return "Each state needs a name.";
  }
  if (!isRange(state)) {
    return undefined;
  }
  const { atLeast = null, below = null } = state;
  if (atLeast === null && below === null) {
    return `Enter from or below which value it is "${state.name}".`;
  }
  return atLeast !== null && below !== null && atLeast >= below
    ? `"${state.name}": the first value must be less than the second.`
    : undefined;
}
