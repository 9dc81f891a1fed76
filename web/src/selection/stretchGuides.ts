import type { Transform } from '@doodla/core';
import type { GuidedResize } from '@doodla/core/construct';
import type { PageDesk } from '../room/pageDesk';
import { MoveGuides } from '../tools/select/moveGuides';
import type { At, DragKeys } from './DragDot';

/** What a selection meets while one of its handles is dragged. */
export class StretchGuides {
  private start: At | undefined;
  private guides: MoveGuides | undefined;

  constructor(private readonly desk: Pick<PageDesk, 'page' | 'penCase' | 'selection' | 'targetMarks'>) {}

  /**
   * A stretch that meets what it nearly meets: by no more than `reach`, page units. As the hand makes it while the key for it is
   * held, or where guides are off. `start` is the place where the drag began, the same object throughout.
   */
  guided(
    resize: Extract<Transform, { kind: 'resize' }>,
    start: At,
    { centred }: DragKeys,
    reach: number,
  ): GuidedResize {
    if (centred || !this.desk.penCase.get().guides) return { resize, guides: [] };
    if (this.start !== start || !this.guides) this.guides = new MoveGuides(this.desk, reach);
    this.start = start;
    return this.guides.stretched(resize);
  }
}
