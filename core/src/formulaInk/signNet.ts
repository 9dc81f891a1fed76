import type { LearnedLetters } from '../handwriting/letterNet.js';
import { LetterNet } from '../handwriting/letterNet.js';

/** What was learned of the signs of formulas; it is fetched when it is first wanted. */
export async function learnedSigns(): Promise<LetterNet> {
  const { default: learned } = await import('./signs.json', { with: { type: 'json' } });
  return new LetterNet(learned satisfies LearnedLetters);
}
