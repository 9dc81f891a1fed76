import { pagesOfList } from '@doodla/core';
import type { Loss } from '@doodla/core/handout';
import { Download } from 'lucide-react';
import { useCallback, useEffect, useRef, useState } from 'react';
import { drawThumbnail } from '../room/thumbnail';
import { Button } from '../ui/Button';
import { Modal } from '../ui/Modal';
import type { DrawPage } from '../ui/PageChoice';
import { PageChoice } from '../ui/PageChoice';
import { ProgressBar } from '../ui/ProgressBar';
import type { PageDesk } from '../room/pageDesk';
import { LOSSES } from './losses';
import type { WordsAfter } from './WordParts';
import { WordParts } from './WordParts';
import { makeHandout } from './makeHandout';
import { t } from '../words';

interface HandoutDialogProps {
  desk: PageDesk;
  title: string;
  onClose(): void;
}

type Stage =
  | { at: 'ready' }
  | { at: 'making'; part: number }
  | { at: 'made'; url: string; losses: readonly Loss[] }
  | { at: 'failed'; message: string };

/** Makes the marked-up pages into a PDF to save, print or send. */
export default function HandoutDialog({ desk, title, onClose }: HandoutDialogProps) {
  const [stage, setStage] = useState<Stage>({ at: 'ready' });
  const [list, setList] = useState('');
  const [wordsAfter, setWordsAfter] = useState<WordsAfter>();
  const abort = useRef(new AbortController());
  useEffect(() => () => abort.current.abort(new DOMException('Cancelled', 'AbortError')), []);
  useEffect(() => () => (stage.at === 'made' ? URL.revokeObjectURL(stage.url) : undefined), [stage]);

  const make = async () => {
    abort.current = new AbortController();
    setStage({ at: 'making', part: 0 });
    try {
      const onProgress = (done: number, total: number) => setStage({ at: 'making', part: done / total });
      const { signal } = abort.current;
      const after = await wordsAfter?.();
      const { pdf, losses } = await makeHandout(desk, {
        title,
        signal,
        onProgress,
        only,
        ...(after && { after }),
      });
      setStage({ at: 'made', url: URL.createObjectURL(pdf), losses });
    } catch (error) {
      if (abort.current.signal.aborted) setStage({ at: 'ready' });
      else setStage({ at: 'failed', message: (error as Error).message });
    }
  };

  const pages = desk.pages.get();
  const some = pagesOfList(list, pages.length);
  const only = some && new Set(some.map((index) => pages[index]!.id));
  const draw = useCallback<DrawPage>(
    (canvas, index, width) => drawThumbnail(canvas, desk.pages.get()[index]!, desk, width),
    [desk],
  );
  return (
    <Modal
      title={t('common.handOut')}
      description={t('handout.onePdfOfThePages')}
      open
      onOpenChange={onClose}
    >
      {pages.length > 1 && stage.at === 'ready' && (
        <PageChoice count={pages.length} value={list} onChange={setList} draw={draw} />
      )}
      {desk.isTeacher && desk.sitting !== undefined && stage.at === 'ready' && (
        <WordParts room={desk.room} onChange={(words) => setWordsAfter(() => words)} />
      )}
      {stage.at === 'making' && (
        <div className="mb-5">
          <ProgressBar label={t('handout.makingThePdf')} part={stage.part} />
        </div>
      )}
      {stage.at === 'made' && stage.losses.length > 0 && <Losses losses={stage.losses} />}
      {stage.at === 'failed' && (
        <p role="alert" className="mb-5 font-bold text-alarm">
          {t('handout.thePdfCouldNotBeMade', { why: stage.message })}
        </p>
      )}
      <p role="status" className={stage.at === 'made' ? 'mb-5 font-bold' : undefined}>
        {stage.at === 'made' && t('handout.thePdfIsReady')}
      </p>
      <div className="flex flex-wrap gap-3">
        {stage.at === 'made' ? (
          <a
            // The button that had the focus is gone.
            ref={(link) => link?.focus()}
            href={stage.url}
            download={fileName(title)}
            className="inline-flex min-h-11 items-center gap-2 rounded-xl border-2 border-board bg-board px-4 font-bold text-paper"
          >
            <Download aria-hidden size={18} /> {t('handout.saveFile', { name: fileName(title) })}
          </a>
        ) : stage.at === 'making' ? (
          <Button onClick={() => abort.current.abort(new DOMException('Cancelled', 'AbortError'))}>
            {t('common.cancel')}
          </Button>
        ) : (
          <Button look="main" disabled={!only} onClick={() => void make()}>
            {t('handout.makeThePdf')}
          </Button>
        )}
      </div>
    </Modal>
  );
}

function Losses({ losses }: { losses: readonly Loss[] }) {
  return (
    <div role="status" className="mb-5">
      <p className="mb-1 font-bold">{t('handout.theHandoutDoesNotHave')}</p>
      <ul className="list-disc ps-5">
        {losses.map((loss) => (
          <li key={loss}>{LOSSES[loss]}</li>
        ))}
      </ul>
    </div>
  );
}

/** A title without what file systems forbid. */
function fileName(title: string): string {
  return `${title.replace(/[\\/:*?"<>|]+/g, '-').slice(0, 120) || t('handout.handout')}.pdf`;
}
