import { t } from "@/language";
import type { PanelKind } from "../kind";
import ValuePanel from "./ValuePanel.vue";

export const value: PanelKind = {
  name: t("Value with age and headroom"),
  size: { w: 3, h: 2 },
  points: "needed",
  most: 100,
  look: ["decimals", "words"],
  range: "P1D",
  choices: [
    {
      key: "statistic",
      label: t("Which value"),
      options: [
        { value: null, label: t("the newest") },
        { value: "mean", label: t("mean of a time") },
        { value: "minimum", label: t("lowest of a time") },
        { value: "maximum", label: t("highest of a time") },
      ],
    },
  ],
  view: ValuePanel,
};
