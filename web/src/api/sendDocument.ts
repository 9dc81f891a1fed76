import type {
  DocumentProgress,
  LessonSummary,
  LookedAtReply,
  NewLessonReply,
  PagePlaceRequest,
  PageReply,
  PagesReply,
  ProgressLine,
  Remarked,
} from '@doodla/core';
import { sentenceOf } from '../words/sentences';
import { errorOf, fileForm, RequestError } from './http';
import { placeQuery } from './place';

export type UploadProgress =
  /** Bytes sent, 0 to 1. */
  | { phase: 'sending'; part: number }
  /** Documents that are turned into pages before this one. */
  | { phase: 'waiting'; before: number }
  /** Pages read by the server, 0 to 1. */
  | { phase: 'reading'; part: number };

type Line = ProgressLine<DocumentProgress, object>;

interface SendOptions {
  onProgress(progress: UploadProgress): void;
  signal: AbortSignal;
}

/** Sends a document to choose pages of. Throws as `sendLesson`. */
export const sendToLook = (file: File, options: SendOptions) =>
  send<LookedAtReply>('/api/documents', file, options);

/** Sends a document as a new lesson. Throws RequestError; aborts by the signal. */
export const sendLesson = (file: File, options: SendOptions) =>
  send<NewLessonReply>('/api/lessons', file, options);

/** Sends a lesson archive as a new lesson. Throws as `sendLesson`. */
export const sendArchive = (file: File, options: SendOptions) =>
  send<LessonSummary>('/api/archives', file, options);

/** Puts the pages of a document into a lesson; `pages` names some of them, such as `1-3,7`. */
export function sendPages(
  lesson: string,
  file: File,
  { after, sitting, pages = '', ...options }: SendOptions & PagePlaceRequest & { pages?: string | undefined },
): Promise<PagesReply & Remarked> {
  const query = new URLSearchParams({ pages, ...placeQuery({ after, sitting }) });
  return send(`/api/lessons/${lesson}/documents?${query}`, file, options);
}

/** Puts a sound or video file into a lesson as a page; `size` is that of its picture, pixels. */
export function sendMedia(
  lesson: string,
  file: File,
  {
    after,
    sitting,
    size,
    ...options
  }: SendOptions & PagePlaceRequest & { size?: { width: number; height: number } | undefined },
): Promise<PageReply> {
  const query = new URLSearchParams({
    ...placeQuery({ after, sitting }),
    ...(size && { width: String(size.width), height: String(size.height) }),
  });
  return send(`/api/lessons/${lesson}/media?${query}`, file, options);
}

/** Sends a file and waits until the server is done with it. */
function send<T>(url: string, file: File, { onProgress, signal }: SendOptions): Promise<T> {
  return new Promise((resolve, reject) => {
    const xhr = new XMLHttpRequest();
    const abort = () => xhr.abort();
    signal.addEventListener('abort', abort);
    xhr.upload.onprogress = ({ loaded, total }) => onProgress({ phase: 'sending', part: loaded / total });
    xhr.upload.onload = () => onProgress({ phase: 'reading', part: 0 });
    xhr.onprogress = () => tell(lines(xhr.responseText).at(-1), onProgress);
    xhr.onerror = () => reject(errorOf(0, ''));
    xhr.onabort = () => reject(new DOMException('Cancelled', 'AbortError'));
    xhr.onload = () => {
      if (xhr.status >= 400) return reject(errorOf(xhr.status, xhr.responseText));
      const last = lines(`${xhr.responseText}\n`).at(-1);
      if (!last) reject(errorOf(0, ''));
      else if ('error' in last) {
        reject(new RequestError(422, last.error.code, sentenceOf(last.error)));
      } else resolve(last as T);
    };
    xhr.onloadend = () => signal.removeEventListener('abort', abort);
    xhr.open('POST', url);
    xhr.send(fileForm(file, file.name));
  });
}

function tell(line: Line | undefined, onProgress: SendOptions['onProgress']): void {
  if (!line) return;
  if ('waiting' in line) onProgress(waitingOr(line.waiting));
  if ('done' in line) onProgress({ phase: 'reading', part: line.done / line.total });
}

function waitingOr(before: number): UploadProgress {
  return before > 0 ? { phase: 'waiting', before } : { phase: 'reading', part: 0 };
}

function lines(text: string): Line[] {
  const whole = text.slice(0, text.lastIndexOf('\n') + 1);
  return whole
    .split('\n')
    .filter((line) => line !== '')
    .map((line) => JSON.parse(line) as Line);
}
