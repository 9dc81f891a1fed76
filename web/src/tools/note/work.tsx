import type { Mark } from '@doodla/core';
import { StickyNote } from 'lucide-react';
import type { Placing } from '../placeGesture';
import { PlaceGesture } from '../placeGesture';
import type { ToolDesk, ToolWork } from '../toolWork';

export const note: ToolWork = {
  icon: <StickyNote aria-hidden />,
  begin(at, { desk }) {
    const common = desk.newMark();
    const style = { colour: desk.penCase.get().noteColour, font: 'andika' as const };
    const placing: Placing = {
      tapSize: { width: 170, height: 170 },
      square: false,
      make: (box) => common && { ...common, kind: 'note', text: '', style, ...box, rotation: 0 },
    };
    return new PlaceGesture(desk, at, placing, (mark) => edit(desk, mark));
  },
};

function edit(desk: Pick<ToolDesk, 'textEdit'>, mark: Mark): void {
  if (mark.kind === 'note')
    desk.textEdit.set({ mark, x: mark.x, y: mark.y, width: mark.width, common: mark });
}
