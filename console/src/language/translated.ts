import { createI18n } from "vue-i18n";
import type { Write } from "./index";

/**
 * Writes texts by a catalogue whose keys are the English ones; what it does not have stays English. Loaded only where
 * another language is spoken.
 */
export function translated(language: string, catalogue: Record<string, string>): Write {
  const { global: words } = createI18n({
    legacy: false,
    locale: language,
    fallbackFormat: true,
    missingWarn: false,
    fallbackWarn: false,
    // French counts none as one.
    pluralRules: { fr: (n, forms) => (forms === 1 ? 0 : n > 1 ? 1 : 0) },
    // Texts hold full stops, which are no paths.
    messageResolver: (texts, text) => (texts as Record<string, string>)[text] ?? null,
    messages: { [language]: catalogue } as Record<string, Record<string, string>>,
  });
  return (text, values, n) => (n === undefined ? words.t(text, values) : words.t(text, values, n));
}
