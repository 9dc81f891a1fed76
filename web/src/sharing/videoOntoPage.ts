import { toast } from 'sonner';
import { sendMedia } from '../api/sendDocument';
import { fileName } from '../handout/fileName';
import { saveFile } from '../handout/saveFile';
import type { VideoMaker } from '../media/videoMaker';
import type { PageDesk } from '../room/pageDesk';
import { t } from '../words';

const SHOWN_MS = 12_000;

/**
 * Finishes a video and puts it on a page of its own after a page, where it plays in step for all. What cannot be put there can
 * be saved.
 */
export async function videoOntoPage(
  desk: PageDesk,
  maker: VideoMaker,
  { name, after }: { name: string; after: string | undefined },
): Promise<void> {
  if (maker.length === 0) return;
  const file = await maker.finish(fileName(name));
  const abort = new AbortController();
  const cancel = { label: t('common.cancel'), onClick: () => abort.abort() };
  const waiting = toast.loading(t('sharing.videoIsSent'), { cancel });
  try {
    const size = { width: maker.width, height: maker.height };
    const { page } = await sendMedia(desk.room.lesson, file, {
      sitting: desk.sitting,
      after,
      size,
      signal: abort.signal,
      onProgress: () => undefined,
    });
    toast(t('sharing.videoIsOnAPage'), {
      duration: SHOWN_MS,
      action: { label: t('sharing.showTheVideo'), onClick: () => desk.turnToWhenThere(page) },
    });
  } catch (error) {
    const why = abort.signal.aborted ? '' : (error as Error).message;
    toast.error(t('sharing.videoCouldNotBeSent', { why }), {
      duration: Infinity,
      action: { label: t('handout.saveFile', { name: file.name }), onClick: () => saveFile(file, file.name) },
    });
  } finally {
    toast.dismiss(waiting);
  }
}
