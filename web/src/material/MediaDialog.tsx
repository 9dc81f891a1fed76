import { useEffect, useRef, useState } from 'react';
import type { UploadProgress } from '../api/sendDocument';
import { sendMedia } from '../api/sendDocument';
import { UploadProgressBar } from './UploadProgressBar';
import { Button } from '../ui/Button';
import { Problem } from '../ui/Problem';
import { Modal } from '../ui/Modal';
import { broughtIn } from './broughtIn';
import type { PageDesk } from '../room/pageDesk';
import { pictureSize } from '../media/pictureSize';
import { t } from '../words';

/** Brings a sound or video file in as a page that is played in step for all. */
export default function MediaDialog({ desk, onClose }: { desk: PageDesk; onClose(): void }) {
  const [progress, setProgress] = useState<UploadProgress>();
  const [problem, setProblem] = useState<string>();
  const chooser = useRef<HTMLInputElement>(null);
  const abort = useRef(new AbortController());
  useEffect(() => () => abort.current.abort(), []);

  const bring = async (file: File) => {
    setProblem(undefined);
    const { signal } = abort.current;
    try {
      const size = await pictureSize(file);
      const after = desk.pageId.get();
      const { page } = await sendMedia(desk.room.lesson, file, {
        sitting: desk.sitting,
        after,
        size,
        signal,
        onProgress: setProgress,
      });
      broughtIn(desk, [page]);
      onClose();
    } catch (error) {
      setProgress(undefined);
      if (!signal.aborted) setProblem((error as Error).message);
    }
  };

  return (
    <Modal
      title={t('material.aSoundOrVideoFile')}
      description={t('material.everybodyHearsAndSeesIt')}
      open
      onOpenChange={onClose}
    >
      <input
        ref={chooser}
        type="file"
        accept="video/*,audio/*"
        aria-label={t('material.chooseARecording')}
        className="sr-only"
        tabIndex={-1}
        onChange={(event) => {
          const [file] = event.target.files ?? [];
          if (file) void bring(file);
        }}
      />
      <Problem>{problem}</Problem>
      {progress ? (
        <UploadProgressBar progress={progress} />
      ) : (
        <Button look="main" onClick={() => chooser.current!.click()}>
          {t('material.chooseAFile')}
        </Button>
      )}
    </Modal>
  );
}
