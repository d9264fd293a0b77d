import { fixed } from "@/look/numbers";
import { t } from "@/language";
import { api } from "@/api/http";
import type { Finding, KeptWaveform, Marker, Spectrum, SpectrumKind, Waterfall, Waveform } from "@/api/types";
import { usePointPath } from "@/chart/series";

export const KINDS: Record<SpectrumKind, string> = {
  velocity: t("Velocity"),
  acceleration: t("Acceleration"),
  displacement: t("Displacement"),
  envelope: t("Envelope (bearings)"),
};

/** Where a spectrum can end, in Hz. */
export const ENDS = [200, 500, 1000, 2000, 5000, 10000];

/** What a request for a spectrum says; without a time it is that of the newest waveform. */
export interface Wanted {
  kind: SpectrumKind;
  untilHz: number;
  at?: string;
}

/** Velocity and displacement grow without bound towards 0 Hz; the others do not. */
function query({ kind, untilHz, at }: Wanted): string {
  const fromHz = kind === "acceleration" || kind === "envelope" ? 2 : 10;
  return `kind=${kind}&fromHz=${fromHz}&untilHz=${untilHz}` + (at ? `&at=${at}` : "");
}

/** Asks the service; a shared page asks under its own address. */
export function useSpectra() {
  const path = usePointPath();
  return {
    /** Which waveforms there are, newest first, however old. */
    kept: (point: string, limit: number) =>
      api.get<KeptWaveform[]>(`${path(point)}/waveforms?from=1970-01-01T00:00:00Z&limit=${limit}`),
    spectrum: (point: string, wanted: Wanted) => api.get<Spectrum>(`${path(point)}/spectrum?${query(wanted)}`),
    waveform: (point: string, at?: string) => api.get<Waveform>(`${path(point)}/waveform${at ? "?at=" + at : ""}`),
    waterfall: (point: string, wanted: Wanted, from: Date) =>
      api.get<Waterfall>(`${path(point)}/waterfall?${query(wanted)}&from=${from.toISOString()}&rows=60`),
  };
}

const PARTS: Record<string, string> = {
  "outer-ring": t("outer ring"),
  "inner-ring": t("inner ring"),
  "rolling-element": t("ball or roller"),
  cage: t("cage"),
};

/** What can be marked: the running speed, and each part of each bearing. */
export interface Markable {
  id: string;
  label: string;
  hz: number;
}

export function markables(markers: Marker[]): Markable[] {
  const speed = markers.find((marker) => marker.part === "speed");
  return [
    ...(speed ? [{ id: "speed", label: t("running speed"), hz: speed.hz }] : []),
    ...markers
      .filter((marker) => marker.part !== "speed")
      .map((marker) => ({
        id: marker.bearing + "/" + marker.part,
        label: `${marker.bearing}: ${PARTS[marker.part] ?? marker.part}`,
        hz: marker.hz,
      })),
  ];
}

/** What is marked where nobody chose: the part of a bearing that an envelope points to, else the running speed. */
export function usualMark(spectrum: Spectrum): string {
  const finding = spectrum.kind === "envelope" ? spectrum.findings.find((one) => one.bearing) : undefined;
  return finding ? finding.bearing + "/" + finding.pattern : "speed";
}

/** How often a second the machine turns, if that is known. */
export function speedHz(spectrum: Spectrum): number | undefined {
  return spectrum.speed ? spectrum.speed.rpm / 60 : undefined;
}

/** The strongest line in words. */
export function strongest(spectrum: Spectrum): string {
  const line = spectrum.lines[0];
  return line
    ? t("Strongest line {frequency} Hz, {value} {unit}", {
        frequency: three(line.hz),
        value: three(line.rms),
        unit: spectrum.unit,
      })
    : t("No line stands out");
}

/** A line that is marked; sidebands are fainter than what they stand beside. */
export interface Mark {
  hz: number;
  label: string;
  beside?: boolean;
}

/** On each side of a multiple. */
const SIDEBANDS = 2;

/**
 * Its frequency and multiples, as far as they are shown: five of the running speed, three of everything else.
 *
 * @param besideHz how far apart sidebands stand around each multiple, such as the running speed around the line of an inner
 *   ring or of a gear; undefined for none
 */
export function marked(of: Markable | undefined, untilHz: number, besideHz?: number): Mark[] {
  if (!of || !(of.hz > 0)) {
    return [];
  }
  const multiples = Array.from({ length: of.id === "speed" ? 5 : 3 }, (_, i) => ({
    hz: of.hz * (i + 1),
    label: `${i + 1}×`,
  }));
  const sides = besideHz ? Array.from({ length: SIDEBANDS }, (_, i) => [-1 - i, i + 1]).flat() : [];
  return multiples
    .flatMap((one): Mark[] => [
      one,
      ...sides.map((side) => ({ hz: one.hz + side * (besideHz ?? 0), label: "", beside: true })),
    ])
    .filter(({ hz }) => hz > 0 && hz <= untilHz);
}

const PATTERNS: Record<Finding["pattern"], string> = {
  unbalance: t("Nearly all vibration is at the running speed. This usually points to unbalance."),
  misalignment: t(
    "Twice the running speed is nearly as strong as the running speed, or stronger. This usually points to misalignment.",
  ),
  looseness: t("Many multiples of the running speed stand out. This usually points to looseness."),
  "outer-ring": t("The envelope repeats as often as a ball or roller passes the outer ring."),
  "inner-ring": t("The envelope repeats as often as a ball or roller passes the inner ring."),
  "rolling-element": t("The envelope repeats as often as a ball or roller turns."),
  cage: t("The envelope repeats as often as the cage turns."),
};

export function findingWords(finding: Finding): string {
  const words = PATTERNS[finding.pattern];
  const sides = finding.sidebands.length
    ? ` ${t("Sidebands at the running speed stand beside its line, as where damage turns through the load.")}`
    : "";
  return finding.bearing
    ? t('Bearing "{bearing}": {words}{sides} This usually points to damage there.', {
        bearing: finding.bearing,
        words,
        sides,
      })
    : words;
}

const SOURCES = {
  MEASURED: t("measured"),
  PLATE: t("from the plate, made exact by the spectrum"),
  FOUND: t("found in the spectrum"),
};

export function speedWords(speed: Spectrum["speed"]): string {
  return speed
    ? t("{rpm} rpm, {source}", { rpm: Math.round(speed.rpm), source: SOURCES[speed.source] })
    : t("not known");
}

/** Three significant digits, which is what a spectrum can tell. */
export function three(value: number): string {
  const size = value === 0 ? 0 : Math.floor(Math.log10(Math.abs(value)));
  return fixed(value, Math.min(6, Math.max(0, 2 - size)));
}

const FIGURES: [id: string, label: string, unit: "velocity" | "acceleration" | "displacement" | "own" | ""][] = [
  ["velocity-rms", t("Velocity, RMS"), "velocity"],
  ["acceleration-rms", t("Acceleration, RMS"), "acceleration"],
  ["displacement-rms", t("Displacement, RMS"), "displacement"],
  ["peak", t("Peak"), "own"],
  ["peak-to-peak", t("Peak to peak"), "own"],
  ["crest-factor", t("Crest factor"), ""],
  ["kurtosis", t("Kurtosis"), ""],
];
const UNITS = { velocity: "mm/s", acceleration: "m/s²", displacement: "µm", "": "" };

/** The figures of a waveform in words, those that it cannot show left out. */
export function figuresOf(waveform: Waveform): { label: string; value: string }[] {
  return FIGURES.flatMap(([id, label, unit]) => {
    const value = waveform.figures[id];
    return value === undefined
      ? []
      : [{ label, value: `${three(value)} ${unit === "own" ? waveform.unit : UNITS[unit]}`.trim() }];
  });
}
