import type { Page } from '@doodla/core';
import { toast } from 'sonner';
import { annotationsToMarks as request } from '../api/lessons';
import type { Room } from '../room/room';
import { t } from '../words';

const SHOWN_MS = 12_000;

/** Makes what others have written on a page's document marks that can be changed. */
export async function annotationsToMarks(room: Room, { surface }: Page): Promise<void> {
  if (surface.kind !== 'pdf') return;
  try {
    const { marks, step } = await request(room.lesson, surface.material, room.sitting);
    room.target.adopt(step);
    toast(t('pages.annotationsAreMarksNow', { count: marks }), {
      duration: SHOWN_MS,
      action: { label: t('common.undo'), onClick: () => room.target.takeBack(step.id) },
    });
  } catch (error) {
    room.tellProblem((error as Error).message);
  }
}
