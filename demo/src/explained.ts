import type { ExplanationSettings, Page, Take } from '@doodla/core';
import { writeNoted } from '@doodla/core/explain';

const SECOND = 1000;
/** When the take began, seconds after the class did. */
const BEGAN = 55;

/** A stretch of the class, in seconds since it began. */
const part = (take: string, from: number, to: number) => ({
  take,
  from: (from - BEGAN) * SECOND,
  length: (to - from) * SECOND,
});
const caption = (take: string, from: number, seconds: number, text: string) => ({
  take,
  from: (from - BEGAN) * SECOND,
  length: seconds * SECOND,
  text,
});

/** What the teacher explained on the worksheet in the past class, without a voice: shortened, with captions and a stop. */
export function pastExplanation(
  id: string,
  openedAt: number,
  [sheet]: readonly Page[],
): { take: Take; notes: string; said: ExplanationSettings } {
  return {
    take: {
      id,
      startedAt: openedAt + BEGAN * SECOND,
      length: 140 * SECOND,
      voice: null,
      video: null,
      face: null,
    },
    notes: writeNoted([
      { t: 0, do: 'page', page: sheet!.id },
      { t: 62.5 * SECOND, do: 'point', who: 1, colour: '#d55e00', page: sheet!.id, x: 400, y: 290 },
      { t: 63.5 * SECOND, do: 'rest', who: 1 },
    ]),
    said: {
      name: 'Where the load goes',
      parts: [part(id, 57, 63), part(id, 117, 123), part(id, 136, 142), part(id, 177, 184)],
      stops: [
        {
          id: 'arrows',
          take: id,
          from: (122.5 - BEGAN) * SECOND,
          text: 'Draw the second arrow',
          seconds: 20,
        },
      ],
      chapters: [],
      captions: [
        caption(id, 57.5, 5, 'Which parts carry the load?'),
        caption(id, 117.5, 5, 'The load presses on the middle of the deck.'),
        caption(id, 136.5, 5, 'Half of it runs to the other bank.'),
        caption(id, 177.5, 6, 'The load splits and runs into both banks.'),
      ],
      finished: true,
    },
  };
}
