import { t } from "@/language";
import type { Formula, Point, Recipe } from "@/api/types";
import { stateProblem } from "./states";

/** How a point gets its readings, as the form offers it. */
export const SOURCES = {
  measured: t("Measured by a device"),
  prepared: t("Prepared formula"),
  written: t("Own formula"),
  over: t("Statistic of several points"),
  overTime: t("Mean, highest or lowest value over time"),
  while: t("Readings while another point has certain values"),
} as const;

export type Source = keyof typeof SOURCES;

/** A formula of a kind with nothing chosen yet; null for a measured point. */
export function emptyFormula(source: Source, placeId: string): Formula | null {
  switch (source) {
    case "measured":
      return null;
    case "prepared":
      return { kind: "prepared", recipe: "", inputs: {}, parameters: {}, withinMinutes: null, everyMinutes: null };
    case "written":
      return { kind: "written", text: "a - b", inputs: { a: "", b: "" }, withinMinutes: null, everyMinutes: null };
    case "over":
      return {
        kind: "over",
        statistic: "mean",
        selection: { kind: "selection", placeId, quantity: "temperature", assetKind: null },
        withinMinutes: null,
        everyMinutes: null,
      };
    case "overTime":
      return { kind: "overTime", pointId: "", averaging: { rule: "mean", minutes: 480 }, everyMinutes: null };
    case "while":
      return {
        kind: "while",
        pointId: "",
        whileId: "",
        is: null,
        atLeast: null,
        below: null,
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
    case "overTime":
      return formula.pointId !== "" && formula.averaging.minutes > 0;
    case "while":
      return (
        formula.pointId !== "" &&
        formula.whileId !== "" &&
        formula.pointId !== formula.whileId &&
        stateProblem({ name: "state", ...rangeOf(formula) }) === undefined
      );
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

/** The points that a formula names; those of a selection are not named. */
export function inputIds(formula: Formula): string[] {
  switch (formula.kind) {
    case "over":
      return [];
    case "overTime":
      return [formula.pointId];
    case "while":
      return [formula.pointId, formula.whileId];
    case "written":
    case "prepared":
      return Object.values(formula.inputs);
  }
}

/** The values of the other point in which readings count. */
export function rangeOf(formula: Extract<Formula, { kind: "while" }>) {
  return { is: formula.is ?? null, atLeast: formula.atLeast ?? null, below: formula.below ?? null };
}

/** Intervals at which a point may have readings of its own; otherwise it has one whenever an input has one. */
export const INTERVALS = [1, 5, 10, 15, 30, 60, 24 * 60];

export function intervalWords(minutes: number): string {
  return minutes === 1440
    ? t("Once a day, at midnight UTC")
    : minutes === 60
      ? t("Every hour")
      : minutes === 1
        ? t("Every minute")
        : t("Every {minutes} min", { minutes });
}

/** Whether a formula may have readings at an interval: not what adds up or looks back. */
export function mayHaveInterval(formula: Formula, recipes: Recipe[]): boolean {
  switch (formula.kind) {
    case "over":
    case "overTime":
      return true;
    case "written":
      return !/\b(previous|levels)\b|\.before\b/.test(formula.text);
    case "while":
      return false;
    case "prepared":
      return !recipes.find((one) => one.recipe === formula.recipe)?.looksBack;
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
