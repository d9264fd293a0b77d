import type { Language as WidgetTexts } from "element-plus/es/locale/index.mjs";
import { shallowRef } from "vue";

/** The languages of the console, each by its own name. */
export const LANGUAGES = { en: "English", de: "Deutsch", fr: "Français" } as const;
export type Language = keyof typeof LANGUAGES;

/** Where this browser keeps the language that somebody chose in it. */
const KEPT = "language";

function isLanguage(text: string | null | undefined): text is Language {
  return text != null && text in LANGUAGES;
}

/** What is spoken here: what was chosen, else the first of the browser's languages that there is, else English. */
export const language: Language =
  [localStorage.getItem(KEPT), ...navigator.languages.map((one) => one.slice(0, 2))].find(isLanguage) ?? "en";

/**
 * How numbers and dates are written. An English browser may be British or American: it writes dates as its own. The
 * others write German and French as the language does, unless the browser says of which country it is.
 */
export const locale: string | undefined =
  navigator.languages.find((one) => one.startsWith(language)) ?? (language === "en" ? "en-GB" : language);

/** The sign before decimals: a full stop in English, a comma in German and French. */
export const decimalSign =
  new Intl.NumberFormat(locale).formatToParts(1.5).find((part) => part.type === "decimal")?.value ?? ".";

/** Where one English word is two in another language, its key says which of them is meant. */
export const ENGLISH: Record<string, string> = { "over (of an alert)": "over", "Share (part)": "Share" };

/** Writes a text out, with its values in their places and the form that its number asks for. */
export type Write = (text: string, values: Record<string, unknown>, n: number | undefined) => string;

/** English needs no catalogue: the texts are their own keys, so that code can be read. */
export const inEnglish: Write = (text, values, n) => {
  const [one = "", many = one] = (ENGLISH[text] ?? text).split(" | ");
  return (n === undefined || n === 1 ? one : many).replace(
    /\{(\w+)\}|\{'(.)'\}/g,
    (_, name: string | undefined, sign: string | undefined) => sign ?? String(values[name ?? ""] ?? ""),
  );
};

let write = inEnglish;
let phrases: Record<string, string> = {};

const LOADERS = {
  de: () => [import("./de.json"), import("element-plus/es/locale/lang/de.mjs")] as const,
  fr: () => [import("./fr.json"), import("element-plus/es/locale/lang/fr.mjs")] as const,
};

/** The texts of the widgets, where they are not English. */
export const widgetTexts = shallowRef<WidgetTexts>();

/** Loads the texts of the language; before it ends nothing of the console is loaded, since rooms keep texts. */
export async function loadLanguage(): Promise<void> {
  document.documentElement.lang = language;
  if (language !== "en") {
    const [{ translated }, catalogue, widgets] = await Promise.all([import("./translated"), ...LOADERS[language]()]);
    phrases = catalogue.default;
    write = translated(language, phrases);
    widgetTexts.value = widgets.default;
  }
}

/** Chooses another language in this browser; the page is loaded anew in it. */
export function choose(chosen: Language) {
  localStorage.setItem(KEPT, chosen);
  window.location.reload();
}

/**
 * A text in the language that is spoken here, given in English, with values for its {names}. Of "one row | {n} rows" the
 * number n chooses.
 */
export function t(text: string, values: Record<string, unknown> = {}): string {
  const written = Object.fromEntries(
    Object.entries(values).map(([name, value]) => [
      name,
      typeof value === "number" ? String(value).replace(".", decimalSign) : value,
    ]),
  );
  return write(text, written, typeof values.n === "number" ? values.n : undefined);
}

/** A fixed phrase that the service says in English, such as a severity; one that is not known stays as it came. */
export function said(phrase: string): string {
  return phrases[phrase] ?? phrase;
}
