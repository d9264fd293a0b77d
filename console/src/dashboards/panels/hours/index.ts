import { t } from "@/language";
import type { PanelKind } from "../kind";
import HoursPanel from "./HoursPanel.vue";

export const hours: PanelKind = {
  name: t("Hours by days"),
  size: { w: 6, h: 4 },
  points: "needed",
  most: 1,
  look: ["decimals"],
  range: "P7D",
  choices: [
    {
      key: "statistic",
      label: t("Of each hour"),
      options: [
        { value: "mean", label: t("the mean") },
        { value: "minimum", label: t("the lowest") },
        { value: "maximum", label: t("the highest") },
      ],
    },
  ],
  view: HoursPanel,
};
