import type { PanelKind } from "../kind";
import PictureFields from "./PictureFields.vue";
import PicturePanel from "./PicturePanel.vue";

export const picture: PanelKind = {
  name: "Drawing that moves with a value",
  size: { w: 3, h: 3 },
  points: "needed",
  look: ["decimals", "scale", "words"],
  choices: [
    {
      key: "drawing",
      label: "Drawing",
      options: [
        { value: "pump", label: "pump" },
        { value: "fan", label: "fan" },
        { value: "valve", label: "valve" },
        { value: "door", label: "door" },
        { value: "tank", label: "tank" },
        { value: "silo", label: "silo" },
        { value: "lorry", label: "lorry" },
        { value: "shed", label: "shed" },
      ],
    },
  ],
  fields: PictureFields,
  view: PicturePanel,
};
