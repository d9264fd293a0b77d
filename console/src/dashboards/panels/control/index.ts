import { t } from "@/language";
import type { PanelKind } from "../kind";
import ControlPanel from "./ControlPanel.vue";

export const control: PanelKind = {
  name: t("Radio devices: settings and commands"),
  size: { w: 6, h: 5 },
  points: "needed",
  look: [],
  view: ControlPanel,
};
