import { saveFile } from './saveFile';
import type { PageDesk } from '../room/pageDesk';
import { t } from '../words';

/** Saves the pages on which something waits that could not be sent, as a PDF. Rejects with a sentence. */
export async function saveOwnWork(desk: PageDesk): Promise<void> {
  const { makeHandout } = await import('./makeHandout');
  const pages = new Set(
    desk.target.pending.flatMap(({ changes }) =>
      changes.flatMap((change) => (change.do === 'add' ? [change.mark.page] : [])),
    ),
  );
  const { blob } = await makeHandout(desk, { title: t('handout.myWork'), only: pages });
  saveFile(blob, 'my-work.pdf');
}
