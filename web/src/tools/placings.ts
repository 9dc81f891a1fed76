import type { Mark } from '@doodla/core';
import type { ToolId } from '../desk/penCase';
import type { Gesture, PenPoint } from '../desk/gesture';
import { OwnStampGesture } from './ownStampGesture';
import { PlaceGesture } from './placeGesture';
import type { Placing } from './placeGesture';
import type { ToolDesk } from './toolDesk';

const STAMP_SIZE = { width: 44, height: 44 };
const NOTE_SIZE = { width: 170, height: 170 };
const PATCH_SIZE = { width: 220, height: 60 };
const SHAPE_SIZE = { width: 160, height: 110 };

/** The gesture of a tool that puts something into a box; undefined for other tools. */
export function placeGesture(desk: ToolDesk, tool: ToolId, at: PenPoint): Gesture | undefined {
  switch (tool) {
    case 'shape':
      return new PlaceGesture(desk, at, shapePlacing(desk));
    case 'stamp':
      if (desk.penCase.get().ownStamp !== null) return new OwnStampGesture(desk, at);
      return new PlaceGesture(desk, at, stampPlacing(desk));
    case 'note':
      return new PlaceGesture(desk, at, notePlacing(desk), (mark) => editNote(desk, mark));
    case 'patch':
      return new PlaceGesture(desk, at, patchPlacing(desk));
    default:
      return undefined;
  }
}

function patchPlacing(desk: ToolDesk): Placing {
  const common = desk.newMark();
  const style = { colour: desk.penCase.get().patchColour };
  return {
    tapSize: PATCH_SIZE,
    square: false,
    make: (box) => common && { ...common, kind: 'patch', style, ...box, rotation: 0 },
  };
}

function shapePlacing(desk: ToolDesk): Placing {
  const { form, sides, outline } = desk.penCase.get();
  const common = desk.newMark();
  return {
    tapSize: SHAPE_SIZE,
    square: false,
    make: (box) =>
      common && { ...common, kind: 'shape', form, sides, style: outline, ...box, rotation: 0, flip: false },
  };
}

function stampPlacing(desk: ToolDesk): Placing {
  const { stamp, stampColour } = desk.penCase.get();
  const common = desk.newMark();
  const label = stamp === 'number' ? String(nextNumber(desk)) : '';
  const style = { colour: stampColour };
  return {
    tapSize: STAMP_SIZE,
    square: true,
    make: (box) =>
      common && { ...common, kind: 'stamp', stamp, label, style, ...box, rotation: 0, flip: false },
  };
}

/** One more than the highest counting number on the page. */
export function nextNumber(desk: ToolDesk): number {
  const numbers = (desk.targetMarks?.all() ?? []).flatMap((mark) =>
    mark.kind === 'stamp' && mark.stamp === 'number' ? Number(mark.label) : [],
  );
  return Math.min(999, Math.max(0, ...numbers) + 1);
}

function notePlacing(desk: ToolDesk): Placing {
  const common = desk.newMark();
  const style = { colour: desk.penCase.get().noteColour, font: 'andika' as const };
  return {
    tapSize: NOTE_SIZE,
    square: false,
    make: (box) => common && { ...common, kind: 'note', text: '', style, ...box, rotation: 0 },
  };
}

function editNote(desk: ToolDesk, mark: Mark): void {
  if (mark.kind === 'note')
    desk.textEdit.set({ mark, x: mark.x, y: mark.y, width: mark.width, common: mark });
}
