import type { PanelKind } from "../kind";
import VesselPanel from "./VesselPanel.vue";

export const vessel: PanelKind = {
  name: "Vessel with a level",
  size: { w: 3, h: 3 },
  points: "needed",
  most: 24,
  look: ["decimals", "scale"],
  choices: [
    {
      key: "shape",
      label: "Shape",
      options: [
        { value: "upright", label: "upright tank" },
        { value: "lying", label: "lying tank" },
        { value: "cone", label: "silo with a cone" },
        { value: "ball", label: "ball" },
        { value: "open", label: "open basin" },
      ],
    },
  ],
  view: VesselPanel,
};
