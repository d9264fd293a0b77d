import { t } from "@/language";
import type { PanelKind } from "../kind";
import PairsPanel from "./PairsPanel.vue";

export const pairs: PanelKind = {
  name: t("One point against another"),
  size: { w: 5, h: 4 },
  points: "needed",
  most: 2,
  look: [],
  range: "P7D",
  view: PairsPanel,
};
