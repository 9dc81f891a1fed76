import type { Words } from '@web/words/textNames';
import type { OwnWords } from './own.en';

/** The words of a language, brought by a file of their own before whatever speaks. */
export interface Spoken {
  language: string;
  words: Words;
  own: OwnWords;
}

const shared = globalThis as typeof globalThis & { doodlaWords?: Spoken };

/** Leaves words for what is loaded next into the same place. */
export function bringWords(language: string, words: Words, own: OwnWords): void {
  shared.doodlaWords = { language, words, own };
}

/** The words that were brought. Throws where none were. */
export function broughtWords(): Spoken {
  if (!shared.doodlaWords) throw new Error('no words were brought');
  return shared.doodlaWords;
}
