/** Ids of what a page that plays by itself brings. */
export const PACK_ID = 'explanation';
export const LETTERS_ID = 'letters';
export const WORDS_ID = 'words';
