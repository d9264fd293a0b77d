import { t } from "@/language";
import type { PanelKind } from "../kind";
import BarsPanel from "./BarsPanel.vue";

export const bars: PanelKind = {
  name: t("Table with bars"),
  size: { w: 6, h: 4 },
  points: "needed",
  look: ["decimals", "scale", "words"],
  choices: [
    {
      key: "order",
      label: t("Order"),
      options: [
        { value: "headroom", label: t("least headroom first") },
        { value: "value", label: t("highest value first") },
        { value: "name", label: t("by name") },
      ],
    },
  ],
  view: BarsPanel,
};
