import type { Panel } from "@/api/types";
import type { Component } from "vue";

/** A setting of one kind that is chosen from a list. */
export interface Choice {
  key: string;
  label: string;
  /** The first is the usual one. */
  options: { value: string | number | null; label: string }[];
}

/** A kind of panel: what it is called, what can be set, and what draws it. */
export interface PanelKind {
  name: string;
  size: { w: number; h: number };
  /** "place": a place is chosen, and its points belong to it. */
  points: "needed" | "possible" | "none" | "place";
  /** How many points it shows at most, where it asks for something of each or nobody could tell more apart. */
  most?: number;
  /** Whether it looks back over a time that can be chosen, and the usual one. */
  range?: string;
  look: ("decimals" | "scale" | "words")[];
  choices?: Choice[];
  /** Further settings of its own; gets and gives the panel. */
  fields?: Component;
  /** Whether something of its own is not chosen yet that it cannot do without. */
  lacks?: (panel: Panel) => boolean;
  view: Component;
}
