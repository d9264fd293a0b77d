import type { PanelKind } from "../kind";
import AlertsPanel from "./AlertsPanel.vue";

export const alerts: PanelKind = {
  name: "Open alerts",
  size: { w: 6, h: 3 },
  points: "possible",
  look: [],
  view: AlertsPanel,
};
