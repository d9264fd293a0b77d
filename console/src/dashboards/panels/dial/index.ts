import { t } from "@/language";
import type { PanelKind } from "../kind";
import DialPanel from "./DialPanel.vue";

export const dial: PanelKind = {
  name: t("Dial with zones"),
  size: { w: 3, h: 3 },
  points: "needed",
  most: 24,
  look: ["decimals", "scale", "words"],
  view: DialPanel,
};
