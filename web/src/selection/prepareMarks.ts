import type { Mark } from '@doodla/core';
import { toast } from 'sonner';
import { keepInLesson } from '../api/lessons';
import type { PageDesk } from '../room/pageDesk';
import { t } from '../words';

/** Makes chosen marks of the class prepared ones, which every later class sees. */
export async function prepareMarks(desk: PageDesk, marks: readonly Mark[]): Promise<void> {
  try {
    const { marks: copies } = await keepInLesson(desk.sitting!, { marks: marks.map(({ id }) => id) });
    if (copies.length === 0) return desk.tellProblem(t('selection.thisPageIsOnlyThis'));
    const kept = new Set(marks.map(({ id }) => id));
    desk.selection.clear();
    desk.target.perform([...kept].map((mark) => ({ do: 'remove', mark })));
    toast(t('selection.everyClassThatIsStarted'), {
      action: {
        label: t('common.undo'),
        onClick: () => {
          desk.target.undo();
          desk.room.lessonLog.perform(copies.map((mark) => ({ do: 'remove', mark })));
        },
      },
    });
  } catch (error) {
    desk.tellProblem((error as Error).message);
  }
}
