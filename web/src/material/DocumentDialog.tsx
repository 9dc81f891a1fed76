import { useEffect, useRef, useState } from 'react';
import type { UploadProgress } from '../api/sendDocument';
import { bringWebFile } from '../api/lessons';
import { sendPages } from '../api/sendDocument';
import { Button } from '../ui/Button';
import { Modal } from '../ui/Modal';
import { TextField } from '../ui/TextField';
import type { Workspace } from '../workspace/workspace';
import { broughtIn, sayLost } from './broughtIn';
import { DOCUMENT_ENDINGS, isWebPage } from './documents';
import { UploadProgressBar } from './UploadProgressBar';

interface DocumentDialogProps {
  workspace: Workspace;
  /** Already chosen, by dropping them. */
  dropped?: readonly File[];
  onClose(): void;
}

/** Puts pages of documents after the shown one, also in the middle of a class. */
export default function DocumentDialog({ workspace, dropped = [], onClose }: DocumentDialogProps) {
  const [files, setFiles] = useState<readonly File[]>(dropped);
  const [pages, setPages] = useState('');
  const [progress, setProgress] = useState<UploadProgress>();
  const [problem, setProblem] = useState<string>();
  const chooser = useRef<HTMLInputElement>(null);
  const abort = useRef(new AbortController());
  useEffect(() => () => abort.current.abort(), []);

  const insert = async () => {
    setProblem(undefined);
    const { signal } = abort.current;
    let after = workspace.pageId.get();
    const brought: string[] = [];
    const failed: { file: File; why: string }[] = [];
    for (const file of files) {
      try {
        const place = { sitting: workspace.sitting, after };
        const sent = await sendInto(workspace, file, { ...place, pages, signal, onProgress: setProgress });
        brought.push(...sent);
        after = sent.at(-1) ?? after;
      } catch (error) {
        if (signal.aborted) return;
        failed.push({ file, why: (error as Error).message });
      }
    }
    setProgress(undefined);
    broughtIn(workspace, brought);
    if (failed.length === 0) return onClose();
    setFiles(failed.map(({ file }) => file));
    setProblem(failed.map(({ file, why }) => (files.length > 1 ? `${file.name}: ${why}` : why)).join('\n'));
  };

  return (
    <Modal
      title="Pages of a document"
      description="They go after the page that is shown; everything else stays as it is."
      open
      onOpenChange={onClose}
    >
      <input
        ref={chooser}
        type="file"
        multiple
        accept={DOCUMENT_ENDINGS}
        aria-label="Choose documents"
        className="sr-only"
        tabIndex={-1}
        onChange={(event) => setFiles([...(event.target.files ?? [])])}
      />
      <div className="mb-4 flex flex-wrap items-center gap-3">
        <Button onClick={() => chooser.current!.click()}>Choose documents …</Button>
        <span className="min-w-0 break-words">{files.map(({ name }) => name).join(', ')}</span>
      </div>
      <TextField
        label="Which pages (all, if left empty)"
        placeholder="1-3, 7"
        value={pages}
        onChange={(event) => setPages(event.target.value)}
      />
      {problem && (
        <p role="alert" className="mb-4 font-bold whitespace-pre-line text-alarm">
          {problem}
        </p>
      )}
      {progress && (
        <div className="mb-4">
          <UploadProgressBar progress={progress} />
        </div>
      )}
      <Button
        look="main"
        disabled={files.length === 0 || progress !== undefined}
        onClick={() => void insert()}
      >
        Put them in
      </Button>
    </Modal>
  );
}

/** Puts a document's pages in, or a web page as one. Returns the new pages. */
async function sendInto(
  workspace: Workspace,
  file: File,
  { pages, signal, onProgress, ...place }: NonNullable<Parameters<typeof sendPages>[2]>,
): Promise<string[]> {
  if (isWebPage(file)) {
    const { page, lost } = await bringWebFile(workspace.lesson, file, place, signal);
    sayLost(lost);
    return [page];
  }
  return (await sendPages(workspace.lesson, file, { ...place, pages, signal, onProgress })).pages;
}
