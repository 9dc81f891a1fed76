import type { Page, ReadingLanguage } from '@doodla/core';
import { toast } from 'sonner';
import { Store } from '@doodla/core/client';
import type { ReadingProgress } from '@doodla/core';
import { readWords } from '../../api/readWords';
import { wordsOnPage } from '../../canvas/findWords';
import type { ToolDesk } from '../toolWork';
import { t } from '../../words';

interface ReadingJob {
  progress: ReadingProgress;
  cancel(): void;
}

/** Pages whose words are being read, by where the words will be kept. They go on while something else is done. */
export const readingJobs = new Store<ReadonlyMap<string, ReadingJob>>(new Map());

/** Has the words of a page read, and says what became of it. */
export async function readPage(
  desk: Pick<ToolDesk, 'surfaces' | 'tellProblem'>,
  page: Page,
  address: string,
  language: ReadingLanguage,
): Promise<void> {
  const abort = new AbortController();
  const onProgress = (progress: ReadingProgress) => set(address, { progress, cancel: () => abort.abort() });
  onProgress({ part: 0 });
  try {
    const words = wordsOnPage(page, await readWords(address, language, { onProgress, signal: abort.signal }));
    desk.surfaces.setWords(page, words);
    toast(words.isEmpty ? t('tools.noWordsWereFoundOn') : t('tools.theWordsOfThisPage'));
  } catch (error) {
    if (!abort.signal.aborted) desk.tellProblem((error as Error).message);
  }
  set(address, undefined);
}

function set(address: string, job: ReadingJob | undefined): void {
  const jobs = new Map(readingJobs.get());
  if (job) jobs.set(address, job);
  else jobs.delete(address);
  readingJobs.set(jobs);
}
