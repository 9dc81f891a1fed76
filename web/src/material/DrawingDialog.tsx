import { useEffect, useRef, useState } from 'react';
import { toast } from 'sonner';
import type { PageDesk } from '../room/pageDesk';
import { Button } from '../ui/Button';
import { Modal } from '../ui/Modal';
import { Problem } from '../ui/Problem';
import { t } from '../words';
import { putMarks } from './putMarks';
import { readDrawingFile } from './readDrawing';

/** Puts what others have drawn, as ink or shapes in a file, on the page as marks that can be changed. */
export default function DrawingDialog({ desk, onClose }: { desk: PageDesk; onClose(): void }) {
  const [isReading, setReading] = useState(false);
  const [problem, setProblem] = useState<string>();
  const chooser = useRef<HTMLInputElement>(null);
  const abort = useRef(new AbortController());
  useEffect(() => () => abort.current.abort(), []);

  const bring = async (file: File) => {
    const { page } = desk;
    if (!page) return;
    setProblem(undefined);
    setReading(true);
    const { signal } = abort.current;
    try {
      const { pages, left } = await readDrawingFile(file, desk.extentOf(page), signal);
      const put = putMarks(desk, pages);
      if (!put) return setProblem(t('material.nothingMayBePut'));
      desk.selection.select(put.shown);
      toast(t('material.marksWerePut', { count: put.count }));
      if (left + put.left > 0) toast.warning(t('material.partsWereLeft', { count: left + put.left }));
      onClose();
    } catch (error) {
      if (!signal.aborted) setProblem((error as Error).message);
    } finally {
      setReading(false);
    }
  };

  return (
    <Modal
      title={t('material.aDrawing')}
      description={t('material.aDrawingHint')}
      open
      onOpenChange={onClose}
    >
      <input
        ref={chooser}
        type="file"
        accept=".svg,.inkml,.ink,.xml,.pptx"
        aria-label={t('material.chooseADrawing')}
        className="sr-only"
        tabIndex={-1}
        onChange={(event) => {
          const [file] = event.target.files ?? [];
          if (file) void bring(file);
          event.target.value = '';
        }}
      />
      <Problem>{problem}</Problem>
      {isReading && (
        <p role="status" className="mb-4">
          {t('material.readingIt')}
        </p>
      )}
      <Button look="main" disabled={isReading} onClick={() => chooser.current!.click()}>
        {t('material.chooseAFile')}
      </Button>
    </Modal>
  );
}
