import { useEffect, useState } from 'react';
import { useNavigate } from 'react-router';
import type { UploadProgress } from '../api/uploadLesson';
import { uploadLesson } from '../api/uploadLesson';
import { Button } from '../ui/Button';
import { Modal } from '../ui/Modal';
import { ProgressBar } from '../ui/ProgressBar';

/** Brings a PDF in: shows how far it is, lets one cancel, and opens the new lesson. */
export function UploadDialog({ file, onClose }: { file: File; onClose(): void }) {
  const [progress, setProgress] = useState<UploadProgress>({ phase: 'sending', part: 0 });
  const [problem, setProblem] = useState<string>();
  const navigate = useNavigate();

  useEffect(() => {
    const abort = new AbortController();
    // The engine starts while the file is still on its way.
    const engine = import('../page/pdfEngine');
    void engine.then(({ warmUp }) => warmUp());
    void import('../classroom/PreparePage');
    uploadLesson(file, setProgress, abort.signal).then(
      ({ lesson, material }) => {
        // Fetched while the lesson is being opened.
        void engine.then(({ preload }) => preload(material));
        void navigate(`/lesson/${lesson.id}`);
      },
      (error: Error) => {
        if (!abort.signal.aborted) setProblem(error.message);
      },
    );
    return () => abort.abort();
  }, [file, navigate]);

  return (
    <Modal
      title={problem ? 'This file was not taken in' : 'Bringing in your PDF'}
      open
      onOpenChange={onClose}
    >
      <p className="mb-4 break-words">{file.name}</p>
      {problem ? (
        <p role="alert" className="mb-6 font-bold text-alarm">
          {problem}
        </p>
      ) : (
        <div className="mb-6">
          <ProgressBar
            label={progress.phase === 'sending' ? 'Sending' : 'Reading the pages'}
            part={progress.part}
          />
        </div>
      )}
      <Button onClick={onClose}>{problem ? 'Close' : 'Cancel'}</Button>
    </Modal>
  );
}
