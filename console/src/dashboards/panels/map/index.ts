import { t } from "@/language";
import type { PanelKind } from "../kind";
import MapPanel from "./MapPanel.vue";

export const map: PanelKind = {
  name: t("Map with tracks"),
  size: { w: 6, h: 5 },
  points: "needed",
  most: 60,
  look: ["decimals"],
  range: "P1D",
  view: MapPanel,
};
