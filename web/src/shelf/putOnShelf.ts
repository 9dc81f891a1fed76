import type { PageDesk } from '../room/pageDesk';
import { t } from '../words';

type Keeping = typeof import('./keepOnShelf');

/** Puts something on the shelf; how that is done is fetched when it is first used. */
export async function putOnShelf(desk: PageDesk, put: (keep: Keeping) => Promise<void>): Promise<void> {
  const keeping = await import('./keepOnShelf').catch(() => undefined);
  if (keeping) await put(keeping);
  else desk.tellProblem(t('shelf.notReached'));
}
