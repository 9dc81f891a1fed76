import { Store } from '@doodla/core/client';
import type { HandSample } from '@doodla/core/handwriting';
import { areSamples } from '@doodla/core/handwriting';
import { request } from '../api/http';
import { language } from '../words';

const PREFERENCE = '/api/preferences/hand';
/** Teachers and students who share a computer keep theirs apart. */
const handKey = (isTeacher: boolean) => `doodla.hand.${isTeacher ? 'teacher' : 'student'}`;
const WORDS_KEY = 'doodla.englishWords';

/** Whether a list of English words helps to read; on at first for those who work in English. */
export const englishWords = new Store(
  (localStorage.getItem(WORDS_KEY) ?? String(language().startsWith('en'))) === 'true',
);
englishWords.subscribe(() => localStorage.setItem(WORDS_KEY, String(englishWords.get())));

/** Samples of this person's hand: a teacher's are on the server, a student's in the browser. */
export async function ownHand(isTeacher: boolean): Promise<HandSample[]> {
  const kept: unknown = isTeacher
    ? // Without a connection, what was kept on this computer the last time will do.
      await request<{ value: { samples?: unknown } }>('GET', PREFERENCE).then(
        ({ value }) => value.samples,
        () => keptHere(isTeacher),
      )
    : keptHere(isTeacher);
  return areSamples(kept) ? kept : [];
}

/** Keeps samples of this person's hand instead of those before; none deletes them. Throws RequestError where a teacher's cannot be kept. */
export async function keepHand(isTeacher: boolean, samples: readonly HandSample[]): Promise<void> {
  if (isTeacher) await request('PUT', PREFERENCE, { value: { samples } });
  if (samples.length > 0) localStorage.setItem(handKey(isTeacher), JSON.stringify(samples));
  else localStorage.removeItem(handKey(isTeacher));
}

function keptHere(isTeacher: boolean): unknown {
  return JSON.parse(localStorage.getItem(handKey(isTeacher)) ?? '[]');
}
