import type { ProblemReply } from '@doodla/core';
import { toast } from 'sonner';
import { keepPages } from '../api/lessons';
import type { PageDesk } from '../room/pageDesk';
import { t } from '../words';
import { sentenceOf } from '../words/sentences';

const SHOWN_MS = 12_000;
const REMARK_MS = 30_000;

/** Turns to pages that have just been brought in, and offers to keep them for later classes or take them out. */
export function broughtIn(desk: PageDesk, pages: readonly string[]): void {
  const [first] = pages;
  if (first === undefined) return;
  desk.turnToWhenThere(first);
  const count = pages.length;
  const out = { label: t('material.takeOutAgain'), onClick: () => takeOut(desk, pages) };
  if (desk.sitting === undefined)
    return void toast(t('material.pagesWereBroughtIn', { count }), { duration: SHOWN_MS, action: out });
  toast(t('material.pagesWereBroughtInForThisClass', { count }), {
    duration: SHOWN_MS,
    action: { label: t('common.keepInTheLessonToo'), onClick: () => void keepInLessonToo(desk, pages) },
    cancel: out,
  });
}

/** Says what is to be known of a document that was turned into pages. */
export function sayRemarks(remarks: readonly ProblemReply[]): void {
  for (const remark of remarks) toast.warning(sentenceOf(remark), { duration: REMARK_MS });
}

/** Says that pictures of a web page could not be had, and how they can. */
export function sayLost(lost: number): void {
  if (lost === 0) return;
  toast(t('material.picturesCouldNotBeHad', { count: lost }), { duration: SHOWN_MS });
}

/** Puts pages of a class into its lesson too, so that later classes get them. */
export async function keepInLessonToo(desk: PageDesk, pages: readonly string[]): Promise<void> {
  try {
    await keepPages(desk.sitting!, pages);
    toast(t('material.laterClassesOnThisLesson'));
  } catch (error) {
    desk.tellProblem((error as Error).message);
  }
}

/** Ids of the pages that only this class has. */
export function ownPages(desk: PageDesk): string[] {
  if (desk.sitting === undefined) return [];
  const lesson = desk.room.lessonLog.state.pages;
  return desk.pages
    .get()
    .map(({ id }) => id)
    .filter((id) => lesson.get(id)?.removed !== false);
}

function takeOut(desk: PageDesk, pages: readonly string[]): void {
  const step = desk.pageActions.remove(pages);
  if (step === undefined) return void toast(t('common.aLessonKeepsAtLeast'));
  toast(t('material.theyAreOutAgain'), {
    action: { label: t('common.undo'), onClick: () => desk.target.takeBack(step) },
  });
}
