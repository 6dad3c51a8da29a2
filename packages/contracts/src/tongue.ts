import i18next from 'i18next';
import { ENGLISH, type Gaps, type Tongue } from '@heathstep/core';

/** A language as it is sent: every text that is written in English, said in it. */
export interface LanguageView {
  readonly code: string;
  readonly name: string;
  readonly locale: string;
  readonly smallWithin: boolean;
  /** Whether it says what clinicians read as well. */
  readonly clinicians?: boolean;
  readonly texts: Readonly<Record<string, string>>;
}

/**
 * How a language says what is written in English; a text it has not stays English. Forms that hang on a number stand beside a
 * text with the endings of `Intl.PluralRules` (`text_one`, `text_few`), where the text alone is not enough.
 */
export function tongueOf(language: LanguageView | null): Tongue {
  if (language === null) return ENGLISH;
  const { code, locale, texts, smallWithin } = language;
  const speaker = i18next.createInstance({
    lng: code,
    fallbackLng: false,
    resources: { [code]: { translation: texts } },
    // A text is its own key, whatever signs are in it.
    keySeparator: false,
    nsSeparator: false,
    interpolation: { escapeValue: false },
    initAsync: false,
  });
  void speaker.init();
  return {
    say: (text, gaps) => speaker.t(text, { ...gaps }),
    inside: smallWithin ? ENGLISH.inside : (text) => text,
    number: (value, decimals = 1) =>
      new Intl.NumberFormat(locale, { maximumFractionDigits: decimals, useGrouping: false }).format(value),
  };
}

/**
 * The same for clinicians: what stands in a gap is said as well where it is a text by itself, such as the name of a measure
 * from the content, which sentences hold as it is written there.
 */
export function clinicianTongueOf(language: LanguageView | null): Tongue {
  const tongue = tongueOf(language);
  if (language === null) return tongue;
  const { texts } = language;
  const said = (gaps: Gaps): Gaps =>
    Object.fromEntries(
      Object.entries(gaps).map(([name, v]) => [
        name,
        typeof v === 'string' && Object.hasOwn(texts, v) ? tongue.say(v) : v,
      ]),
    );
  return { ...tongue, say: (text, gaps) => tongue.say(text, gaps === undefined ? gaps : said(gaps)) };
}
