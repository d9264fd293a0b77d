import type { PanelKind } from "../kind";
import DialPanel from "./DialPanel.vue";

export const dial: PanelKind = {
  name: "Dial with zones",
  size: { w: 3, h: 3 },
  points: "needed",
  most: 24,
  look: ["decimals", "scale", "words"],
  view: DialPanel,
};
