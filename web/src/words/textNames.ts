import type { en } from './en';

/** The words of one language: the same names, each with its text, and the plurals that the language has. */
export type Words = { [Part in keyof typeof en]: { [Name in keyof (typeof en)[Part]]: string } };

type Name<Text extends string> = Text extends `${infer Base}_${'one' | 'other'}` ? Base : Text;

/** Names of texts, such as `classroom.goIn`; one for all its plurals. */
export type TextName = {
  [Part in keyof typeof en]: `${Part}.${Name<keyof (typeof en)[Part] & string>}`;
}[keyof typeof en];
