import type { PanelKind } from "../kind";
import ValuePanel from "./ValuePanel.vue";

export const value: PanelKind = {
  name: "Value with age and headroom",
  size: { w: 3, h: 2 },
  points: "needed",
  most: 100,
  look: ["decimals", "words"],
  range: "P1D",
  choices: [
    {
      key: "statistic",
      label: "Which value",
      options: [
        { value: null, label: "the newest" },
        { value: "mean", label: "mean of a time" },
        { value: "minimum", label: "lowest of a time" },
        { value: "maximum", label: "highest of a time" },
      ],
    },
  ],
  view: ValuePanel,
};
