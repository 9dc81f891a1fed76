import { toast } from 'sonner';
import { sendMedia } from '../api/sendDocument';
import { saveFile } from '../handout/saveFile';
import type { PageDesk } from '../room/pageDesk';
import { t } from '../words';

const SHOWN_MS = 12_000;

interface VideoPlace {
  readonly after: string | undefined;
  readonly width: number;
  readonly height: number;
}

/**
 * Puts a video on a page of its own after a page, where it plays in step for all; whether it is there. What cannot be put there
 * can be saved.
 */
export async function videoOntoPage(
  desk: PageDesk,
  file: File,
  { after, ...size }: VideoPlace,
): Promise<boolean> {
  const abort = new AbortController();
  const cancel = { label: t('common.cancel'), onClick: () => abort.abort() };
  const waiting = toast.loading(t('sharing.videoIsSent'), { cancel });
  try {
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
    return true;
  } catch (error) {
    const why = abort.signal.aborted ? '' : (error as Error).message;
    toast.error(t('sharing.videoCouldNotBeSent', { why }), {
      duration: Infinity,
      action: { label: t('handout.saveFile', { name: file.name }), onClick: () => saveFile(file, file.name) },
    });
    return false;
  } finally {
    toast.dismiss(waiting);
  }
}
