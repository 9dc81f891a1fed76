import type { Mark } from '@doodla/core';
import type { ToolId } from '../workspace/penCase';
import type { Workspace } from '../workspace/workspace';
import type { Gesture, PenPoint } from './gesture';
import { OwnStampGesture } from './ownStampGesture';
import { PlaceGesture } from './placeGesture';
import type { Placing } from './placeGesture';

const STAMP_SIZE = { width: 44, height: 44 };
const NOTE_SIZE = { width: 170, height: 170 };
const PATCH_SIZE = { width: 220, height: 60 };
const SHAPE_SIZE = { width: 160, height: 110 };

/** The gesture of a tool that puts something into a box; undefined for other tools. */
export function placeGesture(workspace: Workspace, tool: ToolId, at: PenPoint): Gesture | undefined {
  switch (tool) {
    case 'shape':
      return new PlaceGesture(workspace, at, shapePlacing(workspace));
    case 'stamp':
      if (workspace.penCase.get().ownStamp !== null) return new OwnStampGesture(workspace, at);
      return new PlaceGesture(workspace, at, stampPlacing(workspace));
    case 'note':
      return new PlaceGesture(workspace, at, notePlacing(workspace), (mark) => editNote(workspace, mark));
    case 'patch':
      return new PlaceGesture(workspace, at, patchPlacing(workspace));
    default:
      return undefined;
  }
}

function patchPlacing(workspace: Workspace): Placing {
  const common = workspace.newMark();
  const style = { colour: workspace.penCase.get().patchColour };
  return {
    tapSize: PATCH_SIZE,
    square: false,
    make: (box) => common && { ...common, kind: 'patch', style, ...box, rotation: 0 },
  };
}

function shapePlacing(workspace: Workspace): Placing {
  const { form, sides, outline } = workspace.penCase.get();
  const common = workspace.newMark();
  return {
    tapSize: SHAPE_SIZE,
    square: false,
    make: (box) =>
      common && { ...common, kind: 'shape', form, sides, style: outline, ...box, rotation: 0, flip: false },
  };
}

function stampPlacing(workspace: Workspace): Placing {
  const { stamp, stampColour } = workspace.penCase.get();
  const common = workspace.newMark();
  const label = stamp === 'number' ? String(nextNumber(workspace)) : '';
  const style = { colour: stampColour };
  return {
    tapSize: STAMP_SIZE,
    square: true,
    make: (box) =>
      common && { ...common, kind: 'stamp', stamp, label, style, ...box, rotation: 0, flip: false },
  };
}

/** One more than the highest counting number on the page. */
export function nextNumber(workspace: Workspace): number {
  const numbers = (workspace.targetMarks?.all() ?? []).flatMap((mark) =>
    mark.kind === 'stamp' && mark.stamp === 'number' ? Number(mark.label) : [],
  );
  return Math.min(999, Math.max(0, ...numbers) + 1);
}

function notePlacing(workspace: Workspace): Placing {
  const common = workspace.newMark();
  const style = { colour: workspace.penCase.get().noteColour, font: 'andika' as const };
  return {
    tapSize: NOTE_SIZE,
    square: false,
    make: (box) => common && { ...common, kind: 'note', text: '', style, ...box, rotation: 0 },
  };
}

function editNote(workspace: Workspace, mark: Mark): void {
  if (mark.kind === 'note')
    workspace.textEdit.set({ mark, x: mark.x, y: mark.y, width: mark.width, common: mark });
}
