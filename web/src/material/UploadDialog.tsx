import { useEffect, useState } from 'react';
import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import type { UploadProgress } from '../api/sendDocument';
import { sendArchive, sendLesson, sendPages } from '../api/sendDocument';
import { sayRemarks } from './broughtIn';
import { isLessonArchive } from './documents';
import { UploadProgressBar } from './UploadProgressBar';
import { Button } from '../ui/Button';
import { Modal } from '../ui/Modal';
import { t } from '../words';

/** So long it is said which file of several was not taken in, milliseconds. */
const PROBLEM_MS = 12_000;

interface UploadDialogProps {
  files: readonly File[];
  /** Told at the beginning, when there is time to fetch what shows the lesson afterwards. */
  onBegin(): void;
  onClose(): void;
}

/** Brings documents in as one lesson, their pages in order; shows how far it is, and lets one cancel. */
export function UploadDialog({ files, onBegin, onClose }: UploadDialogProps) {
  const [progress, setProgress] = useState<UploadProgress>({ phase: 'sending', part: 0 });
  const [at, setAt] = useState(0);
  const [problem, setProblem] = useState<string>();
  const navigate = useNavigate();

  useEffect(() => {
    const abort = new AbortController();
    const options = { onProgress: setProgress, signal: abort.signal };
    // The engine starts while the file is still on its way.
    const engine = import('../canvas/pdfEngine');
    void engine.then(({ warmUp }) => warmUp());
    onBegin();
    const run = async () => {
      let lesson: string | undefined;
      const problems: string[] = [];
      for (const [i, file] of files.entries()) {
        setAt(i);
        try {
          if (isLessonArchive(file.name)) lesson ??= (await sendArchive(file, options)).id;
          else if (lesson !== undefined) sayRemarks((await sendPages(lesson, file, options)).remarks);
          else {
            const made = await sendLesson(file, options);
            lesson = made.lesson.id;
            sayRemarks(made.remarks);
            // Fetched while the lesson is being opened.
            void engine.then(({ preload }) => preload(made.material));
          }
        } catch (error) {
          if (abort.signal.aborted) return;
          const { message } = error as Error;
          problems.push(files.length > 1 ? `${file.name}: ${message}` : message);
        }
      }
      if (lesson === undefined) return setProblem(problems.join('\n'));
      for (const each of problems) toast.error(each, { duration: PROBLEM_MS });
      await navigate(`/lesson/${lesson}`);
    };
    run().catch((error: Error) => {
      if (!abort.signal.aborted) setProblem(error.message);
    });
    return () => abort.abort();
  }, [files, navigate, onBegin]);

  return (
    <Modal
      title={problem ? t('material.thisFileWasNotTaken') : t('material.bringingItIn')}
      open
      onOpenChange={onClose}
    >
      <p className="mb-4 break-words">{files[at]!.name}</p>
      {problem ? (
        <p role="alert" className="mb-6 font-bold whitespace-pre-line text-alarm">
          {problem}
        </p>
      ) : (
        <div className="mb-6">
          <UploadProgressBar progress={progress} />
        </div>
      )}
      <Button onClick={onClose}>{problem ? t('common.close') : t('common.cancel')}</Button>
    </Modal>
  );
}
