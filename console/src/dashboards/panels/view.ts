import type { LimitSet, Panel, Point } from "@/api/types";

/** What every panel's drawing is given. Points come from whoever holds them, because a shared page has no account. */
export interface ViewProps<Kind extends Panel["kind"]> {
  panel: Extract<Panel, { kind: Kind }>;
  /** Those that the panel shows to the reader: named ones first, then those of its selection. */
  points: Point[];
  limits: Map<string, LimitSet>;
  /** Whether it is looked at without an account. */
  open: boolean;
}
