import type { Page } from '@doodla/core';
import { isShownIn } from '@doodla/core';
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
  const worker = new Worker(new URL('./film.worker.ts', import.meta.url), { type: 'module' });
  const remote = wrap<FilmWorker>(worker);
  const ended = new Promise<never>((_, reject) => {
    signal.addEventListener('abort', () => reject(signal.reason as Error));
    worker.addEventListener('error', () => reject(new Error(t('explain.notMade'))));
  });
  try {
    return await Promise.race([remote[kind](plan, proxy(hostOf(desk, signal, onProgress))), ended]);
  } catch (error) {
    const isUnable = error instanceof Error && error.message === NO_ENCODER;
    throw isUnable ? new Error(t('explain.noEncoder')) : error;
  } finally {
    remote[releaseProxy]();
    worker.terminate();
  }
}

function hostOf(desk: PageDesk, signal: AbortSignal, onProgress: MakeOptions['onProgress']): FilmHost {
  const scenery = sceneryOf(desk);
  return {
    async surface(page: Page, width: number) {
      await scenery.loadPictures(page, []);
      const bitmap = await createImageBitmap(await scenery.surface(page, width));
      return transfer(bitmap, [bitmap]);
    },
    async picture(material) {
      await desk.pictures.load(material);
      const here = desk.pictures.get(material);
      const copy = here && (await createImageBitmap(here));
      return copy && transfer(copy, [copy]);
    },
    // It comes by a port of its own, and the last of it may come after the file.
    onProgress: (share) => !signal.aborted && onProgress(share),
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
