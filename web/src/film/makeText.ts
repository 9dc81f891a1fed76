import type { Cue, FilmChapter, Shown } from '@doodla/core/explain';
import { textChapters, textVersion } from '@doodla/core/explain';
import type { Replay } from '@doodla/core/replay';
import { PlayedPage } from '../replay/playedPage';
import { playTime } from '../replay/playTime';
import { sceneryOf } from '../replay/scenery';
import type { PageDesk } from '../room/pageDesk';
import { t } from '../words';
import type { MakeOptions } from './makeFilm';

/** Wide enough to be read on paper, pixels. */
const WIDTH = 1400;

/** What an explanation is made into text from. */
export interface TextSources {
  readonly title: string;
  readonly replay: Replay;
  readonly chapters: readonly FilmChapter[];
  readonly stops: readonly { time: number; text: string }[];
  readonly cues: readonly Cue[];
  shownAt(time: number): Shown | undefined;
}

/** An explanation as text with pictures of its steps, one HTML file. Throws the signal's reason when aborted. */
export async function makeText(
  desk: PageDesk,
  { title, replay, shownAt, ...rest }: TextSources,
  { signal, onProgress }: MakeOptions,
): Promise<Blob> {
  await desk.room.readAll();
  const chapters = textChapters({ ...rest, length: replay.length });
  const played = new PlayedPage(sceneryOf(desk), replay, () => undefined);
  const steps = chapters.flatMap((chapter) => chapter.steps);
  const pictures: string[] = [];
  try {
    for (const { at } of steps) {
      signal.throwIfAborted();
      played.uncover(shownAt(at)?.uncovered ?? []);
      const moment = replay.at(at);
      const picture = moment && (await played.draw(moment, WIDTH));
      // In a page it is always a canvas of the page.
      pictures.push((picture as HTMLCanvasElement | undefined)?.toDataURL('image/png') ?? '');
      onProgress(pictures.length / steps.length);
    }
  } finally {
    played.close();
  }
  const html = textVersion(chapters, pictures, {
    title,
    language: document.documentElement.lang,
    alt: ({ name }, { at }) => t('explain.pageAt', { chapter: name, time: playTime(at) }),
    time: playTime,
    contents: t('replay.chapters'),
  });
  return new Blob([html], { type: 'text/html' });
}
