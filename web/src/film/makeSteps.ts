import type { CodedLink, ExplainedStep } from '@doodla/core/explain';
import { stepPages, textChapters } from '@doodla/core/explain';
import { makeHandout } from '../handout/makeHandout';
import { PlayedPage } from '../replay/playedPage';
import { playTime } from '../replay/playTime';
import { sceneryOf } from '../replay/scenery';
import type { PageDesk } from '../room/pageDesk';
import { sayMark } from '../words/marks';
import type { MakeOptions } from './makeFilm';
import type { TextSources } from './makeText';

/**
 * An explanation as a PDF with a page for each of its steps, each as its page was then, with what was said below it and the code
 * of a link. Throws the signal's reason when aborted, and an error with a sentence where it cannot be made.
 */
export async function makeSteps(
  desk: PageDesk,
  { link, ...sources }: TextSources & { link: string | undefined },
  { signal, onProgress }: MakeOptions,
): Promise<Blob> {
  await desk.room.readAll();
  const after = stepPages(stepsOf(desk, sources), link === undefined ? undefined : await coded(link));
  const { blob } = await makeHandout(desk, {
    title: sources.title,
    signal,
    onProgress: (done, total) => onProgress(done / total),
    only: new Set(),
    after,
  });
  return blob;
}

function stepsOf(desk: PageDesk, { replay, shownAt, ...rest }: TextSources): ExplainedStep[] {
  const played = new PlayedPage(sceneryOf(desk), replay, () => undefined);
  played.close();
  return textChapters({ ...rest, length: replay.length }).flatMap(({ name, steps }) =>
    steps.flatMap(({ at, task, said }): ExplainedStep[] => {
      const moment = replay.at(at);
      const page = moment && played.pageOf(moment);
      if (!moment || !page) return [];
      const open = shownAt(at)?.uncovered ?? [];
      const marks = played.marksAt(moment).filter(({ id }) => !open.includes(id));
      return [
        {
          page,
          marks,
          alts: Object.fromEntries(marks.map((mark) => [mark.id, sayMark(mark)])),
          heading: `${playTime(at)}  ${name}`,
          task,
          said: said.join('\n'),
        },
      ];
    }),
  );
}

async function coded(url: string): Promise<CodedLink> {
  const { create } = await import('qrcode');
  const { modules } = create(url, { errorCorrectionLevel: 'M' });
  return { url, size: modules.size, dark: [...modules.data].map(Boolean) };
}
