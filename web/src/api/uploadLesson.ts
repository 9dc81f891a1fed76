import { errorOf, RequestError } from './http';
import type { LessonSummary } from './lessons';

export type UploadProgress =
  /** Bytes sent, 0 to 1. */
  | { phase: 'sending'; part: number }
  /** Pages read by the server, 0 to 1. */
  | { phase: 'reading'; part: number };

export interface Uploaded {
  lesson: LessonSummary;
  /** The stored document. */
  material: string;
}

type Line = { done: number; total: number } | Uploaded | { error: { code: string; message: string } };

/** Sends a PDF and waits until the server has read it. Throws RequestError; aborts by the signal. */
export function uploadLesson(
  file: File,
  onProgress: (progress: UploadProgress) => void,
  signal: AbortSignal,
): Promise<Uploaded> {
  return new Promise((resolve, reject) => {
    const xhr = new XMLHttpRequest();
    const form = new FormData();
    form.append('file', file, file.name);
    const abort = () => xhr.abort();
    signal.addEventListener('abort', abort);
    xhr.upload.onprogress = ({ loaded, total }) => onProgress({ phase: 'sending', part: loaded / total });
    xhr.upload.onload = () => onProgress({ phase: 'reading', part: 0 });
    xhr.onprogress = () => {
      const last = lines(xhr.responseText).at(-1);
      if (last && 'done' in last) onProgress({ phase: 'reading', part: last.done / last.total });
    };
    xhr.onerror = () => reject(errorOf(0, ''));
    xhr.onabort = () => reject(new DOMException('Cancelled', 'AbortError'));
    xhr.onload = () => {
      if (xhr.status >= 400) return reject(errorOf(xhr.status, xhr.responseText));
      const last = lines(xhr.responseText).at(-1);
      if (last && 'lesson' in last) resolve(last);
      else if (last && 'error' in last) reject(new RequestError(422, last.error.code, last.error.message));
      else reject(errorOf(0, ''));
    };
    xhr.onloadend = () => signal.removeEventListener('abort', abort);
    xhr.open('POST', '/api/lessons');
    xhr.send(form);
  });
}

function lines(text: string): Line[] {
  const whole = text.slice(0, text.lastIndexOf('\n') + 1);
  return whole
    .split('\n')
    .filter((line) => line !== '')
    .map((line) => JSON.parse(line) as Line);
}
