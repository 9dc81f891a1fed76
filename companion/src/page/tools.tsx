import type { Mark } from '@doodla/core';
import type { Gesture, PenPoint } from '@web/desk/gesture';
import { EraseGesture } from '@web/tools/eraser/eraseGesture';
import { RubGesture } from '@web/tools/eraser/rubGesture';
import { WordsGesture } from '@web/tools/highlighter/wordsGesture';
import { CornerGesture } from '@web/tools/line/cornerGesture';
import { LINE_TYPES } from '@web/tools/line/facts';
import { LineGesture } from '@web/tools/line/lineGesture';
import { InkGesture } from '@web/tools/pen/inkGesture';
import { PlaceGesture } from '@web/tools/placeGesture';
import { PointGesture } from '@web/tools/pointer/pointGesture';
import { SelectGesture } from '@web/tools/select/selectGesture';
import { nextNumber } from '@web/tools/stamp/nextNumber';
import { TextGesture } from '@web/tools/text/textGesture';
import { TOUCH_REACH } from '@web/tools/toolWork';
import type { GesturePlace } from '@web/tools/toolWork';
import { WispGesture } from '@web/tools/wisp/wispGesture';
import {
  Crosshair,
  Eraser,
  Highlighter,
  LassoSelect,
  PaintBucket,
  PenLine,
  Shapes,
  Spline,
  SquareDashed,
  Stamp,
  StickyNote,
  Type,
  Wind,
} from 'lucide-react';
import type { ReactNode } from 'react';
import type { TabDesk } from './tabDesk';
import type { TabToolId } from './toolIds';

/** What a gesture needs to know of where it is made. */
export type TabPlace = Pick<GesturePlace, 'onChange' | 'pressure' | 'words'> & { desk: TabDesk };

interface TabTool {
  icon: ReactNode;
  begin(at: PenPoint, place: TabPlace): Gesture | undefined;
}

/** What each tool looks like and does. */
export const TAB_TOOLS: Record<TabToolId, TabTool> = {
  pen: {
    icon: <PenLine aria-hidden />,
    begin: (at, { desk, pressure, onChange }) =>
      new InkGesture(desk, desk.penCase.get().pen, pressure, at, onChange),
  },
  highlighter: {
    icon: <Highlighter aria-hidden />,
    begin(at, { desk, words, onChange }) {
      const { highlighter, markWords } = desk.penCase.get();
      if (markWords && words) return new WordsGesture(desk, at, (from, to) => words.between(from, to));
      return new InkGesture(desk, highlighter, false, at, onChange);
    },
  },
  text: { icon: <Type aria-hidden />, begin: (at, { desk }) => new TextGesture(desk, at) },
  eraser: {
    icon: <Eraser aria-hidden />,
    begin(at, { desk }) {
      const { eraser, eraserRadius } = desk.penCase.get();
      const Taking = eraser === 'rubber' ? RubGesture : EraseGesture;
      return new Taking(desk, eraserRadius, at);
    },
  },
  shape: {
    icon: <Shapes aria-hidden />,
    begin(at, { desk }) {
      const { form, sides, outline: style } = desk.penCase.get();
      const common = desk.newMark();
      return new PlaceGesture(desk, at, {
        tapSize: { width: 160, height: 110 },
        square: false,
        make: (box) => ({ ...common, kind: 'shape', form, sides, style, ...box, rotation: 0, flip: false }),
      });
    },
  },
  line: {
    icon: <Spline aria-hidden />,
    begin(at, { desk }) {
      const Drawing = LINE_TYPES[desk.penCase.get().line].corners ? CornerGesture : LineGesture;
      return new Drawing(desk, at, TOUCH_REACH);
    },
  },
  stamp: {
    icon: <Stamp aria-hidden />,
    begin(at, { desk }) {
      const { stamp, stampColour: colour } = desk.penCase.get();
      const common = desk.newMark();
      const label = stamp === 'number' ? String(nextNumber(desk)) : '';
      return new PlaceGesture(desk, at, {
        tapSize: { width: 44, height: 44 },
        square: true,
        make: (box) => ({
          ...common,
          ...box,
          ...{ kind: 'stamp', stamp, label, style: { colour }, rotation: 0, flip: false },
        }),
      });
    },
  },
  note: {
    icon: <StickyNote aria-hidden />,
    begin(at, { desk }) {
      const common = desk.newMark();
      const style = { colour: desk.penCase.get().noteColour, font: 'andika' as const };
      const edit = (mark: Mark) => {
        if (mark.kind === 'note') desk.textEdit.set({ mark, ...mark, common: mark });
      };
      return new PlaceGesture(
        desk,
        at,
        {
          tapSize: { width: 170, height: 170 },
          square: false,
          make: (box) => ({ ...common, kind: 'note', text: '', style, ...box, rotation: 0 }),
        },
        edit,
      );
    },
  },
  fill: { icon: <PaintBucket aria-hidden />, begin: (at, { desk }) => desk.pourAt(at) },
  select: {
    icon: <LassoSelect aria-hidden />,
    begin: (at, { desk }) => new SelectGesture(desk, at, TOUCH_REACH),
  },
  pointer: { icon: <Crosshair aria-hidden />, begin: (at, { desk }) => new PointGesture(desk, at) },
  wisp: { icon: <Wind aria-hidden />, begin: (at, { desk }) => new WispGesture(desk, at) },
  patch: {
    icon: <SquareDashed aria-hidden />,
    begin(at, { desk }) {
      const common = desk.newMark();
      const style = { colour: desk.penCase.get().patchColour };
      return new PlaceGesture(desk, at, {
        tapSize: { width: 220, height: 60 },
        square: false,
        make: (box) => ({ ...common, kind: 'patch', style, ...box, rotation: 0 }),
      });
    },
  },
};
