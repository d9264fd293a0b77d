import { t } from "@/language";
import type { PanelKind } from "../kind";
import SpreadPanel from "./SpreadPanel.vue";

export const spread: PanelKind = {
  name: t("Distribution, duration curve"),
  size: { w: 5, h: 4 },
  points: "needed",
  most: 1,
  look: ["decimals"],
  range: "P7D",
  choices: [
    {
      key: "curve",
      label: t("Shown as"),
      options: [
        { value: "distribution", label: t("distribution: time in each class") },
        { value: "duration", label: t("duration curve: value exceeded for a share of the time") },
      ],
    },
  ],
  view: SpreadPanel,
};
