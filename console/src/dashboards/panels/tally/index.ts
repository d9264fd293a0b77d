import type { PanelKind } from "../kind";
import TallyPanel from "./TallyPanel.vue";

export const tally: PanelKind = {
  name: "All points together",
  size: { w: 4, h: 3 },
  points: "needed",
  look: ["decimals"],
  choices: [
    {
      key: "statistic",
      label: "Show",
      options: [
        { value: null, label: "how many are in which state" },
        { value: "sum", label: "sum of the newest values" },
        { value: "mean", label: "mean of the newest values" },
        { value: "minimum", label: "lowest of the newest values" },
        { value: "maximum", label: "highest of the newest values" },
      ],
    },
  ],
  view: TallyPanel,
};
