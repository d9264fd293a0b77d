import { t } from "@/language";
import type { PanelKind } from "../kind";
import TextFields from "./TextFields.vue";
import TextPanel from "./TextPanel.vue";

export const text: PanelKind = {
  name: t("Text"),
  size: { w: 4, h: 2 },
  points: "none",
  look: [],
  fields: TextFields,
  view: TextPanel,
};
