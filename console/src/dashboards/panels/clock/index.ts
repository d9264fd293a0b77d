import { t } from "@/language";
import type { PanelKind } from "../kind";
import ClockFields from "./ClockFields.vue";
import ClockPanel from "./ClockPanel.vue";

export const clock: PanelKind = {
  name: t("Time of day"),
  size: { w: 3, h: 2 },
  points: "none",
  look: [],
  fields: ClockFields,
  view: ClockPanel,
};
