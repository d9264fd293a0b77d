import type { Panel } from "@/api/types";

export type Shape = NonNullable<Extract<Panel, { kind: "vessel" }>["shape"]>;

/** Outlines of vessels, each inside 0 to 100 across and 0 to 120 down; the fill is cut by the outline. */
export const OUTLINES: Record<Shape, { path: string; top: number; bottom: number }> = {
  upright: { path: "M20 14C20 6 80 6 80 14V106C80 114 20 114 20 106Z", top: 8, bottom: 112 },
  lying: { path: "M14 30H86C98 30 98 90 86 90H14C2 90 2 30 14 30Z", top: 30, bottom: 90 },
  cone: { path: "M20 12C20 5 80 5 80 12V70L56 114H44L20 70Z", top: 7, bottom: 114 },
  ball: { path: "M50 12A48 48 0 1 1 49.9 12Z", top: 12, bottom: 108 },
  open: { path: "M16 10V104C16 110 20 112 24 112H76C80 112 84 110 84 104V10", top: 10, bottom: 112 },
};
