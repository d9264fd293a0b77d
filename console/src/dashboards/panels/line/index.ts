import { t } from "@/language";
import type { PanelKind } from "../kind";
import LinePanel from "./LinePanel.vue";

export const line: PanelKind = {
  name: t("Line over time with limits"),
  size: { w: 6, h: 4 },
  points: "needed",
  most: 24,
  look: ["scale"],
  range: "P1D",
  choices: [
    {
      key: "scale",
      label: t("Scale"),
      options: [
        { value: "fixed", label: t("fixed by the limits") },
        { value: "fit", label: t("fits what is drawn") },
      ],
    },
  ],
  view: LinePanel,
};
