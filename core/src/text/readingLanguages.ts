/** Languages in which the words of a scanned page can be read, by their codes of ISO 639-2. */
export const READING_LANGUAGES = { eng: 'English', deu: 'German', fra: 'French', spa: 'Spanish' } as const;

export type ReadingLanguage = keyof typeof READING_LANGUAGES;
