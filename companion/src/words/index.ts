import { speakWords } from '@web/words';
import i18next from 'i18next';
import type { OwnWords } from './own.en';
import { broughtWords } from './spoken';

const { language, words, own } = broughtWords();
speakWords(language, words);
i18next.addResourceBundle(language, 'translation', { companion: own });

type OwnName<Name = keyof OwnWords> = Name extends `${infer Base}_${'one' | 'other'}` ? Base : Name;

/** A text of the companion's own, with its values put in; `count` chooses the plural. */
export function say(name: OwnName, values: Record<string, string | number> = {}): string {
  return i18next.t(`companion.${name}`, values);
}
