import i18next from 'i18next';
import type { TextName, Words } from './textNames';

/** Languages that there are, by their BCP 47 tags; one is one file. */
const LANGUAGES = {
  en: () => import('./en').then(({ en: words }) => words),
  de: () => import('./de').then(({ de: words }) => words),
  // Of the tags that are nobody's (ISO 639-2, qaa to qtz): no language, but a test of all texts.
  qps: () => import('./pseudo').then(({ pseudo }) => pseudo),
};

export type Language = keyof typeof LANGUAGES;

/** How each language calls itself. */
export const LANGUAGE_NAMES: Readonly<Record<Exclude<Language, 'qps'>, string>> = {
  en: 'English',
  de: 'Deutsch',
};

const KEPT_AS = 'doodla.language';
/** Scripts that run from right to left (UAX 9), by the languages written in them. */
const RIGHT_TO_LEFT = /^(ar|dv|fa|he|ps|qps|ur|yi)\b/;

const isLanguage = (tag: string | null | undefined): tag is Language =>
  tag != null && Object.hasOwn(LANGUAGES, tag);

/** What somebody has chosen here, else the first of the browser's languages that there is, else English. */
export function chosenLanguage(): Language {
  const kept = localStorage.getItem(KEPT_AS);
  if (isLanguage(kept)) return kept;
  return navigator.languages.map((tag) => tag.split('-')[0]).find(isLanguage) ?? 'en';
}

/** Chooses a language for this browser, and loads the page again in it. */
export function chooseLanguage(language: Language): void {
  localStorage.setItem(KEPT_AS, language);
  location.reload();
}

/**
 * Fetches a language and speaks it from now on. Comes before everything that has words, since texts may be taken when
 * a module is loaded.
 */
export async function speak(language: Language): Promise<void> {
  speakWords(language, await LANGUAGES[language]());
  document.documentElement.lang = language;
  document.documentElement.dir = RIGHT_TO_LEFT.test(language) ? 'rtl' : 'ltr';
}

/** Speaks the words that are given. */
export function speakWords(language: string, words: Words): void {
  void i18next.init({
    lng: language,
    resources: { [language]: { translation: words } },
    initAsync: false,
    showSupportNotice: false,
    // React escapes what it shows.
    interpolation: { escapeValue: false },
  });
  i18next.services.formatter?.add('lowercase', (text: string) => text.toLocaleLowerCase(language));
}

/** The words of some sections in the language that is spoken, to be spoken elsewhere (`speakWords`). */
export function spokenWords<Section extends keyof Words>(sections: readonly Section[]): Pick<Words, Section> {
  const all = i18next.getResourceBundle(i18next.language, 'translation') as Words;
  return Object.fromEntries(sections.map((section) => [section, all[section]])) as Pick<Words, Section>;
}

/** The text of a name, with its values put in; `count` chooses the plural. */
export function t(name: TextName, values: Record<string, string | number | null | undefined> = {}): string {
  return i18next.t(name, values);
}

/** Whether the language is written from right to left; what lies at a hand's side does not change sides with it. */
export const isRightToLeft = (): boolean => RIGHT_TO_LEFT.test(i18next.language);

/** The language that is spoken, for `Intl`. */
export const language = (): string => i18next.language;
