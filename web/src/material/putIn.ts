import { bringWebFile, insertChosen } from '../api/lessons';
import type { LookedAtReply } from '@doodla/core';
import type { UploadProgress } from '../api/sendDocument';
import { sendPages } from '../api/sendDocument';
import type { PageDesk } from '../room/pageDesk';
import { sayLost, sayRemarks } from './broughtIn';
import { isWebPage } from './documents';

interface PutOptions {
  /** A list such as `1-3, 7`; empty for all. */
  pages: string;
  onProgress(progress: UploadProgress): void;
  signal: AbortSignal;
}

/** What became of some files: ids of the new pages, and why some files were not taken in. */
export interface PutIn {
  pages: string[];
  failed: { file: File; why: string }[];
}

/** Puts pages of documents, and web pages, after the shown page, in the order of the files. */
export async function putFilesIn(
  desk: PageDesk,
  files: readonly File[],
  options: PutOptions,
): Promise<PutIn> {
  let after = desk.pageId.get();
  const done: PutIn = { pages: [], failed: [] };
  for (const file of files) {
    try {
      const pages = await putFileIn(desk, file, after, options);
      done.pages.push(...pages);
      after = pages.at(-1) ?? after;
    } catch (error) {
      options.signal.throwIfAborted();
      done.failed.push({ file, why: (error as Error).message });
    }
  }
  return done;
}

/** Puts chosen pages of a document that was looked at after the shown page. Returns the new pages. */
export async function putChosenIn(
  desk: PageDesk,
  { material }: LookedAtReply,
  pages: string,
): Promise<string[]> {
  const place = { sitting: desk.sitting, after: desk.pageId.get() };
  return (await insertChosen(desk.room.lesson, material, { ...place, pages })).pages;
}

async function putFileIn(
  desk: PageDesk,
  file: File,
  after: string | undefined,
  { signal, ...options }: PutOptions,
): Promise<string[]> {
  const place = { sitting: desk.sitting, after };
  if (isWebPage(file)) {
    const { page, lost } = await bringWebFile(desk.room.lesson, file, place, signal);
    sayLost(lost);
    return [page];
  }
  const { pages, remarks } = await sendPages(desk.room.lesson, file, { ...place, ...options, signal });
  sayRemarks(remarks);
  return pages;
}
