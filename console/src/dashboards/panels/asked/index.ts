import { t } from "@/language";
import type { PanelKind } from "../kind";
import AskedPanel from "./AskedPanel.vue";

export const asked: PanelKind = {
  name: t("Polled devices: intervals, and writing values"),
  size: { w: 8, h: 4 },
  points: "needed",
  look: [],
  view: AskedPanel,
};
