import { t } from "@/language";
import type { PanelKind } from "../kind";
import GuidanceFields from "./GuidanceFields.vue";
import GuidancePanel from "./GuidancePanel.vue";

export const guidance: PanelKind = {
  name: t("Steps to go through"),
  size: { w: 4, h: 4 },
  points: "place",
  look: [],
  fields: GuidanceFields,
  view: GuidancePanel,
};
