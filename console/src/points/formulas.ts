import type { Formula, Point, Recipe } from "@/api/types";

/** How a point gets its readings, as the form offers it. */
export const SOURCES = {
  measured: "Measured by a device",
  prepared: "Prepared formula",
  written: "Own formula",
  over: "Statistic of several points",
} as const;

export type Source = keyof typeof SOURCES;

/** A formula of a kind with nothing chosen yet; null for a measured point. */
export function emptyFormula(source: Source, placeId: string): Formula | null {
  switch (source) {
    case "measured":
      return null;
    case "prepared":
      return { kind: "prepared", recipe: "", inputs: {}, parameters: {}, withinMinutes: null };
    case "written":
      return { kind: "written", text: "a - b", inputs: { a: "", b: "" }, withinMinutes: null };
    case "over":
      return {
        kind: "over",
        statistic: "mean",
        selection: { kind: "selection", placeId, quantity: "temperature", assetKind: null },
        withinMinutes: null,
      };
  }
}

/** Whether everything is chosen that has to be. */
export function isComplete(formula: Formula | null, recipes: Recipe[]): boolean {
  if (formula === null) {
    return true;
  }
  switch (formula.kind) {
    case "over":
      return formula.selection.placeId !== "";
    case "written":
      return formula.text.trim() !== "" && Object.values(formula.inputs).every(Boolean);
    case "prepared": {
      const recipe = recipes.find((one) => one.recipe === formula.recipe);
      return (
        recipe !== undefined &&
        recipe.inputs.every((input) => formula.inputs[input.name]) &&
        recipe.parameters.every((one) => one.usual !== null || Number.isFinite(formula.parameters[one.name]))
      );
    }
  }
}

/** The next single letter that is free as a name in a formula. */
export function freeName(inputs: Record<string, string>): string {
  return [..."abcdefghijklmnopqrstuvwxyz"].find((letter) => !(letter in inputs)) ?? "x1";
}

/** A point with its place, as a choice in a list. */
export function choice(point: Point): string {
  return `${point.name} (${point.path.at(-1) ?? ""})`;
}
