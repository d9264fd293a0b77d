import { t } from "@/language";
import type { PanelKind } from "../kind";
import PictureFields from "./PictureFields.vue";
import PicturePanel from "./PicturePanel.vue";

export const picture: PanelKind = {
  name: t("Drawing that moves with a value"),
  size: { w: 3, h: 3 },
  points: "needed",
  look: ["decimals", "scale", "words"],
  choices: [
    {
      key: "drawing",
      label: t("Drawing"),
      options: [
        { value: "pump", label: t("pump") },
        { value: "fan", label: t("fan") },
        { value: "valve", label: t("valve") },
        { value: "door", label: t("door") },
        { value: "tank", label: t("tank") },
        { value: "silo", label: t("silo") },
        { value: "lorry", label: t("lorry") },
        { value: "shed", label: t("shed") },
      ],
    },
  ],
  fields: PictureFields,
  view: PicturePanel,
};
