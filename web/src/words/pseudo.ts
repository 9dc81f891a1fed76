import { en } from './en';
import type { Words } from './textNames';

const PLAIN = 'abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZ';
const ACCENTED = 'àƀçđéƒĝĥíĵķļḿñóþǫŕšţúṽŵẋýžÀƁÇĐÉƑĜĤÍĴĶĻḾÑÓÞǪŔŠŢÚṼŴẊÝŽ';
/** Other languages are up to so much longer, of the English length; common practice, no source. */
const LONGER = 0.4;
/** What is put in, and what is made important, stays as it is. */
const KEPT = /(\{\{[^}]*\}\}|<\/?b>)/;

/** A text as a language would have it that is longer and written with other letters. */
export function pseudoText(text: string): string {
  const letters = text
    .split(KEPT)
    .map((part, i) => (i % 2 === 1 ? part : [...part].map(accented).join('')))
    .join('');
  return `‹${letters}${'·'.repeat(Math.ceil(text.length * LONGER))}›`;
}

const accented = (letter: string) => ACCENTED[PLAIN.indexOf(letter)] ?? letter;

/** A language that nobody speaks: it shows what is cut where texts are longer, and what is not translated. */
export const pseudo = Object.fromEntries(
  Object.entries(en).map(([part, texts]) => [
    part,
    Object.fromEntries(Object.entries(texts).map(([name, text]) => [name, pseudoText(text)])),
  ]),
) as Words;
