import { t } from "@/language";
import type { PanelKind } from "../kind";
import PlanPanel from "./PlanPanel.vue";

export const plan: PanelKind = {
  name: t("Plan with marks"),
  size: { w: 6, h: 5 },
  points: "place",
  look: [],
  view: PlanPanel,
};
