import { t } from "@/language";
import type { PanelKind } from "../kind";
import TallyPanel from "./TallyPanel.vue";

export const tally: PanelKind = {
  name: t("All points together"),
  size: { w: 4, h: 3 },
  points: "needed",
  look: ["decimals"],
  choices: [
    {
      key: "statistic",
      label: t("Show"),
      options: [
        { value: null, label: t("how many are in which state") },
        { value: "sum", label: t("sum of the newest values") },
        { value: "mean", label: t("mean of the newest values") },
        { value: "minimum", label: t("lowest of the newest values") },
        { value: "maximum", label: t("highest of the newest values") },
      ],
    },
  ],
  view: TallyPanel,
};
