import { hitBySweep } from '@doodla/core';
import type { PageDesk } from '../room/pageDesk';

type CoveredDesk = Pick<PageDesk, 'classroom' | 'isTeacher' | 'penCase' | 'page' | 'layers'>;

/** Takes away the patch that covers a point of the page, in class. Returns whether there was one. */
export function uncover(desk: CoveredDesk, { x, y }: { x: number; y: number }): boolean {
  const { classroom, isTeacher, penCase, page, layers } = desk;
  if (!classroom || !isTeacher || !page || penCase.get().tool === 'select') return false;
  const { uncovered } = classroom.scene.get();
  const patch = layers
    .flatMap((layer) => layer.on(page.id).within({ x, y, width: 0, height: 0 }))
    .findLast(
      (mark) => mark.kind === 'patch' && !uncovered.includes(mark.id) && hitBySweep(mark, x, y, x, y, 1),
    );
  if (!patch || classroom.state.get()?.ended) return false;
  classroom.setScene({ uncovered: [...uncovered, patch.id] });
  return true;
}
