import type { PanelKind } from "../kind";
import LinePanel from "./LinePanel.vue";

export const line: PanelKind = {
  name: "Line over time with limits",
  size: { w: 6, h: 4 },
  points: "needed",
  most: 24,
  look: ["scale"],
  range: "P1D",
  choices: [
    {
      key: "scale",
      label: "Scale",
      options: [
        { value: "fixed", label: "fixed by the limits" },
        { value: "fit", label: "fits what is drawn" },
      ],
    },
  ],
  view: LinePanel,
};
