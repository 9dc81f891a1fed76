import { Download } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { Button } from '../ui/Button';
import { Modal } from '../ui/Modal';
import { ProgressBar } from '../ui/ProgressBar';
import type { Workspace } from '../workspace/workspace';
import { makeHandout } from './makeHandout';

interface HandoutDialogProps {
  workspace: Workspace;
  title: string;
  onClose(): void;
}

type Stage =
  | { at: 'ready' }
  | { at: 'making'; part: number }
  | { at: 'made'; url: string }
  | { at: 'failed'; message: string };

/** Makes the marked-up pages into a PDF to save, print or send. */
export function HandoutDialog({ workspace, title, onClose }: HandoutDialogProps) {
  const [stage, setStage] = useState<Stage>({ at: 'ready' });
  const abort = useRef(new AbortController());
  useEffect(() => () => abort.current.abort(new DOMException('Cancelled', 'AbortError')), []);
  useEffect(() => () => (stage.at === 'made' ? URL.revokeObjectURL(stage.url) : undefined), [stage]);

  const make = async () => {
    abort.current = new AbortController();
    setStage({ at: 'making', part: 0 });
    try {
      const progress = (done: number, total: number) => setStage({ at: 'making', part: done / total });
      const blob = await makeHandout(workspace, title, progress, abort.current.signal);
      setStage({ at: 'made', url: URL.createObjectURL(blob) });
    } catch (error) {
      if (abort.current.signal.aborted) setStage({ at: 'ready' });
      else setStage({ at: 'failed', message: (error as Error).message });
    }
  };

  const pages = workspace.pages.get().length;
  return (
    <Modal
      title="Hand out"
      description={`One PDF of ${pages === 1 ? 'the page' : `all ${pages} pages`} with everything that was written on them.`}
      open
      onOpenChange={onClose}
    >
      {stage.at === 'making' && (
        <div className="mb-5">
          <ProgressBar label="Making the PDF" part={stage.part} />
        </div>
      )}
      {stage.at === 'failed' && (
        <p role="alert" className="mb-5 font-bold text-alarm">
          The PDF could not be made: {stage.message}
        </p>
      )}
      <div className="flex flex-wrap gap-3">
        {stage.at === 'made' ? (
          <a
            href={stage.url}
            download={fileName(title)}
            className="inline-flex min-h-11 items-center gap-2 rounded-xl border-2 border-board bg-board px-4 font-bold text-paper"
          >
            <Download aria-hidden size={18} /> Save {fileName(title)}
          </a>
        ) : stage.at === 'making' ? (
          <Button onClick={() => abort.current.abort(new DOMException('Cancelled', 'AbortError'))}>
            Cancel
          </Button>
        ) : (
          <Button look="main" onClick={() => void make()}>
            Make the PDF
          </Button>
        )}
      </div>
    </Modal>
  );
}

/** A title without what file systems forbid. */
function fileName(title: string): string {
  return `${title.replace(/[\\/:*?"<>|]+/g, '-').slice(0, 120) || 'Handout'}.pdf`;
}
