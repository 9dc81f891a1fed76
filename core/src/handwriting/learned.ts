import type { LearnedLetters } from './letterNet.js';
import { LetterNet } from './letterNet.js';

/** What was learned of written characters; it is fetched when it is first wanted. */
export async function learnedNet(): Promise<LetterNet> {
  const { default: learned } = await import('./letters.json', { with: { type: 'json' } });
  return new LetterNet(learned satisfies LearnedLetters);
}
