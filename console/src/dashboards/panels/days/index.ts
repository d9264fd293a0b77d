import { t } from "@/language";
import type { PanelKind } from "../kind";
import DaysPanel from "./DaysPanel.vue";

export const days: PanelKind = {
  name: t("Table of days"),
  size: { w: 6, h: 4 },
  points: "needed",
  most: 24,
  look: ["decimals"],
  range: "P7D",
  choices: [
    {
      key: "statistic",
      label: t("Of each day"),
      options: [
        { value: "mean", label: t("the mean") },
        { value: "minimum", label: t("the lowest") },
        { value: "maximum", label: t("the highest") },
      ],
    },
  ],
  view: DaysPanel,
};
