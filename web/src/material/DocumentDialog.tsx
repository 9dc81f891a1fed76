import { UNITS_PER_POINT } from '@doodla/core';
import { useCallback, useEffect, useRef, useState } from 'react';
import type { LookedAtReply } from '@doodla/core';
import type { UploadProgress } from '../api/sendDocument';
import { sendToLook } from '../api/sendDocument';
import { Button } from '../ui/Button';
import { Problem } from '../ui/Problem';
import { Modal } from '../ui/Modal';
import type { DrawPage } from '../ui/PageChoice';
import { PageChoice } from '../ui/PageChoice';
import type { PageDesk } from '../room/pageDesk';
import { broughtIn, sayRemarks } from './broughtIn';
import { DOCUMENT_ENDINGS, isWebPage } from './documents';
import { putChosenIn, putFilesIn } from './putIn';
import { UploadProgressBar } from './UploadProgressBar';
import { t } from '../words';

interface DocumentDialogProps {
  desk: PageDesk;
  /** Already chosen, by dropping them. */
  dropped?: readonly File[];
  onClose(): void;
}

/** Puts documents, or some of their pages, after the shown page, also in the middle of a class. */
export default function DocumentDialog({ desk, dropped = [], onClose }: DocumentDialogProps) {
  const [files, setFiles] = useState<readonly File[]>(dropped);
  const [looked, setLooked] = useState<LookedAtReply>();
  const [pages, setPages] = useState('');
  const [progress, setProgress] = useState<UploadProgress>();
  const [problem, setProblem] = useState<string>();
  const chooser = useRef<HTMLInputElement>(null);
  const abort = useRef(new AbortController());
  useEffect(() => () => abort.current.abort(), []);
  const draw = useDrawOf(desk, looked?.material);

  const choose = (chosen: readonly File[]) => {
    setFiles(chosen);
    setLooked(undefined);
    setPages('');
    setProblem(undefined);
  };

  /** Does what takes a while; what goes wrong is said in the dialog. */
  const run = async (work: () => Promise<void>) => {
    setProblem(undefined);
    setProgress({ phase: 'sending', part: 0 });
    try {
      await work();
    } catch (error) {
      if (!abort.current.signal.aborted) setProblem((error as Error).message);
    }
    setProgress(undefined);
  };

  const look = async () => {
    const { signal } = abort.current;
    const document = await sendToLook(files[0]!, { onProgress: setProgress, signal });
    sayRemarks(document.remarks);
    setLooked(document);
  };

  const putIn = async () => {
    if (looked) {
      broughtIn(desk, await putChosenIn(desk, looked, pages));
      return onClose();
    }
    const options = { pages, onProgress: setProgress, signal: abort.current.signal };
    const done = await putFilesIn(desk, files, options);
    broughtIn(desk, done.pages);
    if (done.failed.length === 0) return onClose();
    setFiles(done.failed.map(({ file }) => file));
    setProblem(
      done.failed.map(({ file, why }) => (files.length > 1 ? `${file.name}: ${why}` : why)).join('\n'),
    );
  };

  const isBusy = progress !== undefined;
  const canLook = files.length === 1 && !isWebPage(files[0]!);
  return (
    <Modal
      title={t('material.pagesOfADocument')}
      description={t('material.theyGoAfterThePage')}
      open
      onOpenChange={onClose}
    >
      <input
        ref={chooser}
        type="file"
        multiple
        accept={DOCUMENT_ENDINGS}
        aria-label={t('common.chooseDocuments')}
        className="sr-only"
        tabIndex={-1}
        onChange={(event) => choose([...(event.target.files ?? [])])}
      />
      <div className="mb-4 flex flex-wrap items-center gap-3">
        <Button disabled={isBusy} onClick={() => chooser.current!.click()}>
          {t('material.chooseDocuments')}
        </Button>
        <span className="min-w-0 break-words">{files.map(({ name }) => name).join(', ')}</span>
      </div>
      {looked && <PageChoice count={looked.count} value={pages} onChange={setPages} draw={draw} />}
      <Problem>{problem}</Problem>
      {progress && (
        <div className="mb-4">
          <UploadProgressBar progress={progress} />
        </div>
      )}
      <div className="flex flex-wrap gap-3">
        <Button look="main" disabled={files.length === 0 || isBusy} onClick={() => void run(putIn)}>
          {looked && pages !== '' ? t('material.putThesePagesIn') : t('material.putAllPagesIn')}
        </Button>
        {!looked && (
          <Button disabled={!canLook || isBusy} onClick={() => void run(look)}>
            {t('material.chooseSomeOfItsPages')}
          </Button>
        )}
      </div>
    </Modal>
  );
}

/** Draws small pictures of a stored document's pages. */
function useDrawOf(desk: PageDesk, material: string | undefined): DrawPage {
  return useCallback<DrawPage>(
    async (canvas, index, width) => {
      const doc = await desk.surfaces.pdf(material!);
      const page = await doc.getPage(index + 1);
      const scale = width / page.getViewport({ scale: UNITS_PER_POINT }).width;
      const viewport = page.getViewport({ scale: scale * UNITS_PER_POINT });
      canvas.width = Math.ceil(viewport.width);
      canvas.height = Math.ceil(viewport.height);
      await page.render({ canvas, viewport }).promise;
    },
    [desk, material],
  );
}
