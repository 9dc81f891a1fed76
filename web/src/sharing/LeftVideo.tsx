import { useEffect, useState } from 'react';
import { fileName } from '../handout/fileName';
import { saveFile } from '../handout/saveFile';
import { logOf } from '../room/logOf';
import type { PageDesk } from '../room/pageDesk';
import { Button } from '../ui/Button';
import { t } from '../words';
import { videoOntoPage } from './videoOntoPage';
import type { KeptVideo } from './videoStore';
import { videoStore } from './videoStore';

/** A video of which nothing was kept for so long is not being recorded in another window, milliseconds. */
const BROKEN_OFF_MS = 5000;

/** Offers what is left of a video whose window was closed while it was recorded. */
export function LeftVideo({ desk }: { desk: PageDesk }) {
  const [left, setLeft] = useLeftVideo(desk);
  const [isBusy, setBusy] = useState(false);
  if (!left) return null;
  const { name, after, width, height, length } = left;
  const seconds = Math.floor(length);
  const time = `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}`;
  const run = async (withFile: (file: File) => Promise<boolean>) => {
    setBusy(true);
    try {
      const { videoFile } = await import('../media/videoFile');
      if (await withFile(await videoFile(await videoStore.read(left), fileName(name)))) await drop();
    } catch {
      desk.tellProblem(t('sharing.leftUnreadable'));
    }
    setBusy(false);
  };
  const drop = async () => {
    await videoStore.forget(left.id);
    setLeft(undefined);
  };
  const save = (file: File) => {
    saveFile(file, file.name);
    return Promise.resolve(true);
  };
  return (
    <div
      role="region"
      aria-label={t('sharing.leftVideo')}
      className="absolute top-20 left-1/2 z-30 w-[min(92vw,34rem)] -translate-x-1/2 rounded-2xl border-2 border-board-line bg-board p-4 text-paper shadow-xl"
    >
      <p className="mb-3">{t('sharing.wasLeft', { name, time })}</p>
      <div className="flex flex-wrap justify-end gap-2">
        <Button
          look="onBoard"
          disabled={isBusy}
          onClick={() => void drop().catch((error: Error) => desk.tellProblem(error.message))}
        >
          {t('sharing.dropLeft')}
        </Button>
        <Button look="onBoard" disabled={isBusy} onClick={() => void run(save)}>
          {t('sharing.saveLeft')}
        </Button>
        <Button
          disabled={isBusy}
          onClick={() => void run((file) => videoOntoPage(desk, file, { after, width, height }))}
        >
          {t('sharing.leftOntoPage')}
        </Button>
      </div>
    </div>
  );
}

function useLeftVideo({ room }: PageDesk) {
  const [left, setLeft] = useState<KeptVideo>();
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout> | undefined;
    let gone = false;
    const look = async () => {
      const [first] = await videoStore.of(logOf(room).id);
      if (gone || !first) return;
      if (Date.now() - first.keptAt >= BROKEN_OFF_MS) setLeft(first);
      else timer = setTimeout(tryToLook, BROKEN_OFF_MS);
    };
    // A browser that keeps nothing has nothing that was left.
    const tryToLook = () => void look().catch(() => undefined);
    tryToLook();
    return () => {
      gone = true;
      clearTimeout(timer);
    };
  }, [room]);
  return [left, setLeft] as const;
}
