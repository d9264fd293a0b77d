import { t } from "@/language";
import type { PanelKind } from "../kind";
import StatesPanel from "./StatesPanel.vue";

export const states: PanelKind = {
  name: t("States over time"),
  size: { w: 8, h: 3 },
  points: "needed",
  most: 60,
  look: ["words"],
  range: "P1D",
  view: StatesPanel,
};
