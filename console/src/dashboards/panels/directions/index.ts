import { t } from "@/language";
import type { PanelKind } from "../kind";
import DirectionsPanel from "./DirectionsPanel.vue";

export const directions: PanelKind = {
  name: t("Directions of a machine side by side"),
  size: { w: 9, h: 3 },
  points: "needed",
  most: 12,
  look: [],
  view: DirectionsPanel,
};
