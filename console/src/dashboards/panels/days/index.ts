import type { PanelKind } from "../kind";
import DaysPanel from "./DaysPanel.vue";

export const days: PanelKind = {
  name: "Table of days",
  size: { w: 6, h: 4 },
  points: "needed",
  most: 24,
  look: ["decimals"],
  range: "P7D",
  choices: [
    {
      key: "statistic",
      label: "Of each day",
      options: [
        { value: "mean", label: "the mean" },
        { value: "minimum", label: "the lowest" },
        { value: "maximum", label: "the highest" },
      ],
    },
  ],
  view: DaysPanel,
};
