import type { PanelKind } from "../kind";
import BarsPanel from "./BarsPanel.vue";

export const bars: PanelKind = {
  name: "Table with bars",
  size: { w: 6, h: 4 },
  points: "needed",
  look: ["decimals", "scale", "words"],
  choices: [
    {
      key: "order",
      label: "Order",
      options: [
        { value: "headroom", label: "least headroom first" },
        { value: "value", label: "highest value first" },
        { value: "name", label: "by name" },
      ],
    },
  ],
  view: BarsPanel,
};
