import type { LanguageView } from '@heathstep/contracts/language';
import { speakBy } from '@heathstep/core';
import { keep, stored } from '../api/kept.js';

const KEPT = 'heathstep.language';

/**
 * The language of the clinicians' pages on this device; null for English. Set before any page is made: whoever chooses
 * another reads the page anew, so that nothing is left in the one before.
 */
export const pageLanguage: LanguageView | null = stored<LanguageView | null>(KEPT, null);

/** Sets who says what the pages say; what speaks another language is fetched only where one is read. */
export async function readLanguage(): Promise<void> {
  if (pageLanguage === null) return;
  document.documentElement.lang = pageLanguage.code;
  const { clinicianTongueOf } = await import('@heathstep/contracts/language');
  const tongue = clinicianTongueOf(pageLanguage);
  speakBy(() => tongue);
}

/** Keeps a language, or English, for this device, and reads the page anew in it. */
export function speakFromNowOn(language: LanguageView | null): void {
  keepLanguage(language);
  window.location.reload();
}

/** Keeps how a language stands now; the next page is made of it. */
export const keepLanguage = (language: LanguageView | null): void => keep(KEPT, language, language === null);
