/** Languages in which the words of a scanned page can be read, by their codes of ISO 639-2. */
export const READING_LANGUAGES = ['eng', 'deu', 'fra', 'spa'] as const;

export type ReadingLanguage = (typeof READING_LANGUAGES)[number];
