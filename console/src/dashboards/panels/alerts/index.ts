import { t } from "@/language";
import type { PanelKind } from "../kind";
import AlertsPanel from "./AlertsPanel.vue";

export const alerts: PanelKind = {
  name: t("Open alerts"),
  size: { w: 6, h: 3 },
  points: "possible",
  look: [],
  view: AlertsPanel,
};
