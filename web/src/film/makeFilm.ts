import type { Page } from '@doodla/core';
import { isShownIn } from '@doodla/core';
import { missingVideos, NotedTake } from '@doodla/core/explain';
import type { Recorded, Replay } from '@doodla/core/replay';
import { proxy, releaseProxy, transfer, wrap } from 'comlink';
import { sceneryOf } from '../replay/scenery';
import type { PageDesk } from '../room/pageDesk';
import { canEncodeSound, canEncodeVideo } from '../secure/secureOnly';
import { t } from '../words';
import type { FilmHost, FilmPage, FilmPlan, MadeFilm } from './filmPlan';
import { NO_ENCODER } from './filmPlan';
import type { FilmWorker } from './film.worker';

export interface MakeOptions {
  readonly signal: AbortSignal;
  onProgress(share: number): void;
}

/**
 * A film of an explanation, or what is said in it alone, made in a worker. Throws the signal's reason when aborted, and an error
 * with a sentence where the browser cannot make one.
 */
export async function makeFilm(
  desk: PageDesk,
  kind: 'film' | 'sound',
  plan: FilmPlan,
  { signal, onProgress }: MakeOptions,
): Promise<MadeFilm> {
  if (!canEncodeSound() || !canEncodeVideo()) throw new Error(t('explain.noEncoder'));
  // It would be silent there without a word.
  if (plan.played.some(({ voice }) => voice && !plan.sounds.has(voice.take.id)))
    throw new Error(t('explain.voiceMissing'));
  const shown = new Map([...plan.noted].map(([take, lines]) => [take, new NotedTake(lines)]));
  if (kind === 'film' && missingVideos(plan.played, shown, plan.videos).includes('video'))
    throw new Error(t('explain.movingNotPacked'));
  signal.throwIfAborted();
  const worker = new Worker(new URL('./film.worker.ts', import.meta.url), { type: 'module' });
  const remote = wrap<FilmWorker>(worker);
  const ended = new Promise<never>((_, reject) => {
    signal.addEventListener('abort', () => reject(signal.reason as Error));
    worker.addEventListener('error', () => reject(new Error(t('explain.notMade'))));
  });
  const problems = new Set<string>();
  let isRunning = true;
  // It comes by a port of its own, and the last of it may come after the file.
  const tell = (share: number) => isRunning && onProgress(share);
  try {
    return await Promise.race([remote[kind](plan, proxy(hostOf(desk, problems, tell))), ended]);
  } catch (error) {
    throw signal.aborted ? error : sentenceOf(error as Error, problems);
  } finally {
    isRunning = false;
    remote[releaseProxy]();
    worker.terminate();
  }
}

/** What is told of what a worker threw; what the page itself said in `problems` is a sentence already. */
function sentenceOf({ message }: Error, problems: ReadonlySet<string>): Error {
  if (problems.has(message)) return new Error(message);
  return new Error(t(message === NO_ENCODER ? 'explain.noEncoder' : 'explain.notMade'));
}

/** What the page does for a worker; what it says when it cannot is added to `problems`. */
function hostOf(desk: PageDesk, problems: Set<string>, onProgress: FilmHost['onProgress']): FilmHost {
  const scenery = sceneryOf(desk);
  const noting = async <T>(work: Promise<T>): Promise<T> => {
    try {
      return await work;
    } catch (error) {
      problems.add((error as Error).message);
      throw error;
    }
  };
  return {
    async surface(page: Page, width: number) {
      await noting(scenery.loadPictures(page, []));
      const bitmap = await createImageBitmap(await noting(scenery.surface(page, width)));
      return transfer(bitmap, [bitmap]);
    },
    async picture(material) {
      await noting(desk.pictures.load(material));
      const here = desk.pictures.get(material);
      const copy = here && (await createImageBitmap(here));
      return copy && transfer(copy, [copy]);
    },
    onProgress,
  };
}

/** Marks of a log that its reader does not see. */
export function hiddenIn({ operations }: Recorded, { room }: PageDesk): Set<string> {
  const hidden = new Set<string>();
  for (const { operation } of operations)
    for (const change of operation.changes)
      if (change.do === 'add' && !isShownIn(room.spaces.shownOn(change.mark.page), change.mark.space))
        hidden.add(change.mark.id);
  return hidden;
}

/** The pages that a replay comes to, as a film needs them. */
export async function filmPages(desk: PageDesk, { turns }: Replay): Promise<Map<string, FilmPage>> {
  await desk.room.readAll();
  const scenery = sceneryOf(desk);
  const pages = new Map<string, FilmPage>();
  for (const { page: id } of turns) {
    const page = scenery.pageNow(id);
    if (!page) continue;
    const bounds = desk.layers.map((layer) => layer.on(id).bounds);
    pages.set(id, { page, bounds, prepared: scenery.prepared(id) });
  }
  return pages;
}
