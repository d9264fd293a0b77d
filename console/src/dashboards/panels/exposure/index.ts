import { t } from "@/language";
import type { PanelKind } from "../kind";
import ExposurePanel from "./ExposurePanel.vue";

export const exposure: PanelKind = {
  name: t("Exposure: mean of a shift against its limit"),
  size: { w: 6, h: 3 },
  points: "needed",
  most: 24,
  look: ["decimals", "scale"],
  choices: [
    {
      key: "minutes",
      label: t("Mean of"),
      options: [
        { value: 480, label: t("a shift (8 h)") },
        { value: 15, label: t("a short time (15 min)") },
        { value: 60, label: t("an hour") },
        { value: 1440, label: t("a day") },
      ],
    },
  ],
  view: ExposurePanel,
};
