import type { Panel } from "@/api/types";

export type Drawing = NonNullable<Extract<Panel, { kind: "picture" }>["drawing"]>;

/** Whether a drawing fills as far as the value lies up a scale; the others run or are open. */
export function fillsUp(drawing: Drawing): boolean {
  return ["tank", "silo", "lorry"].includes(drawing);
}
