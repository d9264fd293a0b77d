import type { PanelKind } from "../kind";
import HoursPanel from "./HoursPanel.vue";

export const hours: PanelKind = {
  name: "Hours by days",
  size: { w: 6, h: 4 },
  points: "needed",
  most: 1,
  look: ["decimals"],
  range: "P7D",
  choices: [
    {
      key: "statistic",
      label: "Of each hour",
      options: [
        { value: "mean", label: "the mean" },
        { value: "minimum", label: "the lowest" },
        { value: "maximum", label: "the highest" },
      ],
    },
  ],
  view: HoursPanel,
};
