import type { PanelKind } from "../kind";
import ExposurePanel from "./ExposurePanel.vue";

export const exposure: PanelKind = {
  name: "Exposure: mean of a shift against its limit",
  size: { w: 6, h: 3 },
  points: "needed",
  most: 24,
  look: ["decimals", "scale"],
  choices: [
    {
      key: "minutes",
      label: "Mean of",
      options: [
        { value: 480, label: "a shift (8 h)" },
        { value: 15, label: "a short time (15 min)" },
        { value: 60, label: "an hour" },
        { value: 1440, label: "a day" },
      ],
    },
  ],
  view: ExposurePanel,
};
