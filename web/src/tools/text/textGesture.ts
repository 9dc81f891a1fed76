import { isBoundless, rectContains, markBounds } from '@doodla/core';
import type { MarkOf } from '@doodla/core';
import type { MarkCommon, TextEdit, Desk } from '../../desk/desk';
import type { Preview } from '../../canvas/preview';
import type { Gesture, PenPoint } from '../../desk/gesture';

/** A box that was not drawn wider than this was only clicked; page units. */
const CLICK_WIDTH = 24;
const DEFAULT_WIDTH = 320;
const MIN_WIDTH = 80;

/** Opens a text box where one clicks, as wide as one drags, or the text or formula that is already there. */
export class TextGesture implements Gesture {
  readonly preview: Preview = {};
  private last: PenPoint;
  private readonly common: MarkCommon | undefined;

  constructor(
    private readonly desk: Pick<
      Desk,
      'formulaEdit' | 'layers' | 'mayTouch' | 'newMark' | 'page' | 'pageId' | 'penCase' | 'textEdit'
    >,
    private readonly start: PenPoint,
  ) {
    this.last = start;
    this.common = desk.newMark();
  }

  move(points: readonly PenPoint[]): void {
    this.last = points.at(-1) ?? this.last;
  }

  end(): void {
    const { common } = this;
    // Turned away from meanwhile: there is nothing to type on.
    if (!common || common.page !== this.desk.pageId.get()) return;
    const mark = this.existing(common);
    if (mark?.kind === 'formula') this.desk.formulaEdit.set({ mark });
    else
      this.desk.textEdit.set(
        mark ? { mark, x: mark.x, y: mark.y, width: mark.width, common } : this.fresh(common),
      );
  }

  cancel(): void {
    // Nothing was opened yet.
  }

  private existing(common: MarkCommon): MarkOf<'formula' | 'note' | 'text'> | undefined {
    const { x, y } = this.start;
    return this.desk.layers
      .at(-1)!
      .on(common.page)
      .within({ x, y, width: 0, height: 0 })
      .filter(
        (candidate): candidate is MarkOf<'formula' | 'note' | 'text'> =>
          candidate.kind === 'text' || candidate.kind === 'note' || candidate.kind === 'formula',
      )
      .findLast((text) => this.desk.mayTouch(text) && rectContains(markBounds(text), x, y));
  }

  private fresh(common: MarkCommon): TextEdit {
    const { page, penCase } = this.desk;
    const dragged = Math.abs(this.last.x - this.start.x);
    const x = Math.min(this.start.x, this.last.x);
    const room = page && !isBoundless(page) ? page.width - x - 8 : DEFAULT_WIDTH;
    const wanted = dragged > CLICK_WIDTH ? dragged : Math.max(DEFAULT_WIDTH, penCase.get().text.size * 10);
    const y =
      Math.min(this.start.y, this.last.y) - (dragged > CLICK_WIDTH ? 0 : penCase.get().text.size * 0.7);
    return { x, y, width: Math.max(MIN_WIDTH, Math.min(wanted, room)), common };
  }
}
