import type { Mark } from '@doodla/core';
import { toast } from 'sonner';
import { keepInLesson } from '../api/lessons';
import type { Workspace } from '../workspace/workspace';

/** Makes chosen marks of the class prepared ones, which every later class sees. */
export async function prepareMarks(workspace: Workspace, marks: readonly Mark[]): Promise<void> {
  try {
    const { marks: copies } = await keepInLesson(workspace.sitting!, { marks: marks.map(({ id }) => id) });
    if (copies.length === 0)
      return workspace.onProblem(
        'This page is only this class’s own, so nothing of it goes into the lesson.',
      );
    const kept = new Set(marks.map(({ id }) => id));
    workspace.selection.clear();
    workspace.target.perform([...kept].map((mark) => ({ do: 'remove', mark })));
    toast('Every class that is started on this lesson sees this now.', {
      action: {
        label: 'Undo',
        onClick: () => {
          workspace.target.undo();
          workspace.lessonLog.perform(copies.map((mark) => ({ do: 'remove', mark })));
        },
      },
    });
  } catch (error) {
    workspace.onProblem((error as Error).message);
  }
}
