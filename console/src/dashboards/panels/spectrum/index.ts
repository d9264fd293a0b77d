import { t } from "@/language";
import { ENDS, KINDS } from "@/vibration/spectra";
import type { PanelKind } from "../kind";
import SpectrumPanel from "./SpectrumPanel.vue";

export const spectrum: PanelKind = {
  name: t("Spectrum and waveform"),
  size: { w: 6, h: 4 },
  points: "needed",
  most: 3,
  look: [],
  range: "P30D",
  choices: [
    {
      key: "form",
      label: t("Shown as"),
      options: [
        { value: "spectrum", label: t("spectrum of the newest waveform") },
        { value: "waveform", label: t("the newest waveform") },
        { value: "waterfall", label: t("spectra over time (first point)") },
      ],
    },
    {
      key: "spectrum",
      label: t("Spectrum of"),
      options: Object.entries(KINDS).map(([value, label]) => ({ value, label })),
    },
    {
      key: "untilHz",
      label: t("Up to"),
      options: [1000, ...ENDS.filter((hz) => hz !== 1000)].map((hz) => ({ value: hz, label: hz + " Hz" })),
    },
  ],
  view: SpectrumPanel,
};
