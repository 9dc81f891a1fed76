import type { Focus, Timer } from '@doodla/core';
import type { PageDesk } from '../room/pageDesk';
import { t } from '../words';
import { sayMark } from '../words/marks';

/** What is told of a desk to those who do not see it. */
export type ToldDesk = Pick<PageDesk, 'pageId' | 'pages' | 'isTeacher'> & {
  target: Pick<PageDesk['target'], 'stepped'>;
  selection: Pick<PageDesk['selection'], 'ids' | 'marks'>;
  classroom: Pick<NonNullable<PageDesk['classroom']>, 'scene'> | undefined;
};

const FOCUS: Record<Focus['kind'], string> = {
  spotlight: t('pages.aSpotlightIsOnThe'),
  cover: t('pages.thePageIsCovered'),
  magnifier: t('pages.aPartOfThePageIs'),
  enlarged: t('pages.aPartOfThePage'),
};

/** Says in a sentence what changes for whoever looks at a desk; until what is returned is called. */
export function announce(desk: ToldDesk, tell: (sentence: string) => void): () => void {
  const { classroom, selection, target } = desk;
  let focus = classroom?.scene.get().focus?.kind;
  let timer = classroom?.scene.get().timer ?? null;
  const scene = () => {
    const now = classroom!.scene.get();
    if (now.focus?.kind !== focus) tell(now.focus ? FOCUS[now.focus.kind] : t('pages.theWholePageIsIn'));
    const change = timerChange(timer, now.timer);
    if (change) tell(change);
    focus = now.focus?.kind;
    timer = now.timer;
  };
  const stops = [
    desk.pageId.subscribe(() => tell(pageSentence(desk))),
    target.stepped.subscribe(({ which }) =>
      tell(which === 'undo' ? t('pages.takenBack') : t('pages.doneAgain')),
    ),
    selection.ids.subscribe(() => {
      const sentence = selectionSentence(selection);
      if (sentence) tell(sentence);
    }),
    ...(classroom ? [classroom.scene.subscribe(scene)] : []),
  ];
  return () => stops.forEach((stop) => stop());
}

/** Which page is in sight; empty while there is none. */
export function pageSentence({ pageId, pages }: Pick<ToldDesk, 'pageId' | 'pages'>): string {
  const all = pages.get();
  const at = all.findIndex(({ id }) => id === pageId.get());
  if (at < 0) return '';
  const { title } = all[at]!;
  return t(title ? 'pages.pageOfTitled' : 'pages.pageOf', { number: at + 1, count: all.length, title });
}

function selectionSentence(selection: ToldDesk['selection']): string | undefined {
  const count = selection.ids.get().size;
  if (count === 0) return undefined;
  const [only] = selection.marks();
  return count === 1 && only
    ? t('pages.selected', { what: sayMark(only) })
    : t('pages.thingsAreSelected', { count });
}

function timerChange(before: Timer | null, now: Timer | null): string | undefined {
  if (now && !before) {
    const minutes = Math.round(now.length / 60_000);
    return now.kind === 'stopwatch'
      ? t('pages.aStopwatchHasBeenStarted')
      : t('pages.minutesFromNow', { count: minutes });
  }
  if (before && !now) return t('pages.theTimeHasBeenTaken');
  return undefined;
}
