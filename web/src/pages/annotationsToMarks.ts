import type { Page } from '@doodla/core';
import { toast } from 'sonner';
import { annotationsToMarks as request } from '../api/lessons';
import type { Room } from '../room/room';

const SHOWN_MS = 12_000;

/** Makes what others have written on a page's document marks that can be changed. */
export async function annotationsToMarks(room: Room, { surface }: Page): Promise<void> {
  if (surface.kind !== 'pdf') return;
  try {
    const { marks, step } = await request(room.lesson, surface.material, room.sitting);
    room.target.adopt(step);
    toast(marks === 1 ? '1 annotation is a mark now.' : `${marks} annotations are marks now.`, {
      duration: SHOWN_MS,
      action: { label: 'Undo', onClick: () => room.target.takeBack(step.id) },
    });
  } catch (error) {
    room.tellProblem((error as Error).message);
  }
}
