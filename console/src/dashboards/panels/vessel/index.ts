import { t } from "@/language";
import type { PanelKind } from "../kind";
import VesselPanel from "./VesselPanel.vue";

export const vessel: PanelKind = {
  name: t("Vessel with a level"),
  size: { w: 3, h: 3 },
  points: "needed",
  most: 24,
  look: ["decimals", "scale"],
  choices: [
    {
      key: "shape",
      label: t("Shape"),
      options: [
        { value: "upright", label: t("upright tank") },
        { value: "lying", label: t("lying tank") },
        { value: "cone", label: t("silo with a cone") },
        { value: "ball", label: t("ball") },
        { value: "open", label: t("open basin") },
      ],
    },
  ],
  view: VesselPanel,
};
