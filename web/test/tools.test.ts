import type { Mark } from '@doodla/core';
import { describe, expect, it } from 'vitest';
import { aPath, aShape, aStroke, aText } from '../../core/test/helpers/marks';
import type { Gesture, PenPoint } from '../src/desk/gesture';
import { Selection } from '../src/desk/selection';
import { CornerGesture } from '../src/tools/line/cornerGesture';
import { EraseGesture } from '../src/tools/eraser/eraseGesture';
import { LineGesture } from '../src/tools/line/lineGesture';
import { PlaceGesture } from '../src/tools/placeGesture';
import { StretchGuides } from '../src/selection/stretchGuides';
import { guideMarks } from '../src/tools/select/moveGuides';
import { SelectGesture } from '../src/tools/select/selectGesture';
import { TextGesture } from '../src/tools/text/textGesture';
import { TestDesk } from './helpers/testDesk';

const at = (x: number, y: number, held: Partial<PenPoint> = {}): PenPoint => ({
  x,
  y,
  pressure: 0.5,
  time: 0,
  steady: false,
  centred: false,
  ...held,
});

/** Draws on from where a gesture has begun, and lets go. */
function finish(gesture: Gesture, ...points: PenPoint[]): void {
  for (const point of points) gesture.move([point]);
  gesture.end();
}

/** A line from the left to the right at a height. */
const lineAt = (id: string, y: number, set: Partial<Mark> = {}) =>
  aStroke({ id, points: [100, y, 0.5, 0, 300, y, 0.5, 20], ...(set as object) });

describe('the eraser', () => {
  it('takes all that it touches away in one step, shows it gone meanwhile, and leaves what is not one’s own', () => {
    const desk = new TestDesk([
      lineAt('a', 100),
      lineAt('b', 140),
      lineAt('other', 120, { author: 'bo' }),
      lineAt('far', 400),
    ]);
    const gesture = new EraseGesture(desk, 6, at(200, 90));
    gesture.move([at(200, 150)]);
    expect([...gesture.preview.hidden!]).toEqual(['a', 'b']);
    expect(desk.done).toEqual([]);
    gesture.end();
    expect(desk.done).toEqual([
      [
        { do: 'remove', mark: 'a' },
        { do: 'remove', mark: 'b' },
      ],
    ]);
  });

  it('does nothing where it is called off, or touches nothing', () => {
    const desk = new TestDesk([lineAt('a', 100)]);
    const gesture = new EraseGesture(desk, 6, at(200, 100));
    gesture.cancel();
    gesture.end();
    finish(new EraseGesture(desk, 6, at(500, 500)), at(510, 510));
    expect(desk.done).toEqual([]);
  });
});

describe('selecting', () => {
  const selecting = (...marks: Mark[]) => {
    const desk = new TestDesk(marks);
    return Object.assign(desk, { selection: new Selection(desk) });
  };
  const chosen = (desk: { selection: Selection }) => [...desk.selection.ids.get()].sort();

  it('takes the uppermost under the pointer, with its group, and moves it by dragging', () => {
    const desk = selecting(
      lineAt('low', 100, { order: 'a0' }),
      lineAt('high', 102, { order: 'a1', group: 'g' }),
      lineAt('friend', 300, { order: 'a2', group: 'g' }),
    );
    finish(new SelectGesture(desk, at(200, 101), 6));
    expect(chosen(desk)).toEqual(['friend', 'high']);
    const gesture = new SelectGesture(desk, at(200, 101), 6);
    gesture.move([at(210, 131)]);
    expect(gesture.preview.marks).toHaveLength(2);
    expect(desk.done).toEqual([]);
    gesture.end();
    expect(desk.done).toHaveLength(1);
    expect(desk.mark('high')).toMatchObject({ points: [110, 132, 0.5, 0, 310, 132, 0.5, 20] });
    expect(desk.mark('low')).toMatchObject({ points: [100, 100, 0.5, 0, 300, 100, 0.5, 20] });
  });

  it('leaves where it was what something beside the page takes', () => {
    const desk = selecting(lineAt('kept', 100));
    const before = desk.mark('kept');
    desk.beside = true;
    finish(new SelectGesture(desk, at(200, 101), 6), at(900, 300));
    expect([desk.done, desk.mark('kept')]).toEqual([[], before]);
    desk.beside = false;
    finish(new SelectGesture(desk, at(200, 101), 6), at(900, 300));
    expect(desk.done).toHaveLength(1);
  });

  it('goes round what lies wholly inside, by hand or by a rectangle; a tap beside it lets go', () => {
    const desk = selecting(lineAt('in', 100), lineAt('half', 180));
    finish(new SelectGesture(desk, at(50, 50), 6), at(350, 50), at(350, 140), at(50, 140), at(52, 52));
    expect(chosen(desk)).toEqual(['in']);
    finish(new SelectGesture(desk, at(50, 50), 6), at(350, 200, { centred: true }));
    expect(chosen(desk)).toEqual(['half', 'in']);
    finish(new SelectGesture(desk, at(600, 500), 6));
    expect(chosen(desk)).toEqual([]);
    expect(desk.done).toEqual([]);
  });
});

describe('moving', () => {
  const there = aShape({
    id: 'there',
    form: 'rectangle',
    x: 300,
    y: 100,
    width: 100,
    height: 60,
    rotation: 0,
    flip: false,
  });
  const moved = aShape({ id: 'moved', form: 'rectangle', x: 100, y: 300, width: 50, height: 50, rotation: 0, flip: false, style: { ...there.style, fill: '#ffffff' } }); // prettier-ignore

  it('meets the edges of what is there and shows by what, unless the key for it is held or it is off', () => {
    const desk = new TestDesk([there, moved], { id: 'ada', role: 'teacher', tables: [] });
    const selecting = Object.assign(desk, { selection: new Selection(desk) });
    const gesture = new SelectGesture(selecting, at(120, 320), 6);
    gesture.move([at(324, 520)]);
    expect(gesture.preview.marks).toHaveLength(2);
    gesture.end();
    expect(desk.mark('moved')).toMatchObject({ x: 300, y: 500 });
    finish(new SelectGesture(selecting, at(320, 520), 6), at(327, 520, { centred: true }));
    expect(desk.mark('moved')).toMatchObject({ x: 307, y: 500 });
    desk.penCase.patch({ guides: false });
    finish(new SelectGesture(selecting, at(320, 520), 6), at(331, 520));
    expect(desk.mark('moved')).toMatchObject({ x: 318, y: 500 });
  });
});

describe('stretching', () => {
  const box = (id: string, x: number, y: number) =>
    aShape({ id, form: 'rectangle', x, y, width: 100, height: 60, rotation: 0, flip: false });
  const begin = { x: 0, y: 0 };
  const keys = { steady: false, centred: false };

  it('meets what is there with the edge that is dragged, unless the key for it is held or guides are off', () => {
    const desk = new TestDesk([box('there', 300, 100), box('own', 100, 300)]);
    const selecting = Object.assign(desk, { selection: new Selection(desk) });
    selecting.selection.select(['own']);
    const guides = new StretchGuides(selecting);
    const wider = { kind: 'resize', fx: 1.97, fy: 1, x: 100, y: 300 } as const;
    const met = guides.guided(wider, begin, keys, 6);
    expect(met.resize).toMatchObject({ fx: 2, fy: 1 });
    expect(met.guides).toMatchObject([{ axis: 'x', at: 300 }]);
    expect(guideMarks(desk, met.guides, 6)).toMatchObject([{ kind: 'path', points: [300, 100, 300, 360] }]);
    expect(guides.guided(wider, begin, { ...keys, centred: true }, 6)).toEqual({ resize: wider, guides: [] });
    // What is there is known from the beginning of the drag on, and looked at anew for the next.
    desk.target.perform([{ do: 'remove', mark: 'there' }]);
    expect(guides.guided(wider, begin, keys, 6).guides).toHaveLength(1);
    expect(guides.guided(wider, { ...begin }, keys, 6).guides).toEqual([]);
    desk.penCase.patch({ guides: false });
    expect(guides.guided(wider, begin, keys, 6)).toEqual({ resize: wider, guides: [] });
  });
});

describe('placing', () => {
  const placing = (square = false) => ({
    make: (box: object) => aShape({ id: 'new', ...box }),
    tapSize: { width: 80, height: 60 },
    square,
  });

  it('puts something of a ready size about a tap, and of the drawn size by dragging', () => {
    const desk = new TestDesk([]);
    finish(new PlaceGesture(desk, at(200, 200), placing()), at(203, 202));
    expect(desk.mark('new')).toMatchObject({ x: 160, y: 170, width: 80, height: 60 });
    finish(new PlaceGesture(desk, at(200, 200), placing()), at(120, 260));
    expect(desk.mark('new')).toMatchObject({ x: 120, y: 200, width: 80, height: 60 });
  });

  it('keeps squares square, and grows from the middle, while the keys for it are held', () => {
    const desk = new TestDesk([]);
    finish(new PlaceGesture(desk, at(200, 200), placing(true)), at(230, 300));
    expect(desk.mark('new')).toMatchObject({ x: 200, y: 200, width: 100, height: 100 });
    finish(new PlaceGesture(desk, at(200, 200), placing()), at(230, 250, { steady: true, centred: true }));
    expect(desk.mark('new')).toMatchObject({ x: 150, y: 150, width: 100, height: 100 });
  });

  it('says nothing of what could not be put there', () => {
    const desk = new TestDesk([]);
    desk.refuses = true;
    const placed: Mark[] = [];
    finish(new PlaceGesture(desk, at(200, 200), placing(), (mark) => placed.push(mark)));
    expect(placed).toEqual([]);
  });
});

describe('lines', () => {
  it('stick to what they begin and end at, and none is made by a slip of the hand', () => {
    const desk = new TestDesk([
      aShape({ id: 'a', x: 100, y: 100, width: 100, height: 100 }),
      aShape({ id: 'b', x: 400, y: 100, width: 100, height: 100 }),
    ]);
    finish(new LineGesture(desk, at(198, 150), 8), at(402, 150));
    expect(desk.added).toMatchObject([{ kind: 'path', from: { mark: 'a' }, to: { mark: 'b' } }]);
    finish(new LineGesture(desk, at(600, 400), 8), at(602, 401));
    expect(desk.done).toHaveLength(1);
  });

  it('meet corners, and edges at right angles, unless that is off', () => {
    const edge = aPath({ id: 'e', course: 'straight', closed: false, points: [100, 300, 500, 300] });
    const drawn = (desk: TestDesk) => {
      const [line] = desk.added;
      return line?.kind === 'path' ? line.points : undefined;
    };
    const corner = new TestDesk([edge]);
    finish(new LineGesture(corner, at(104, 303), 8), at(200, 60));
    expect(drawn(corner)!.slice(0, 2)).toEqual([100, 300]);
    const foot = new TestDesk([edge]);
    const gesture = new LineGesture(foot, at(260, 100), 8);
    gesture.move([at(265, 296)]);
    expect(gesture.preview.marks).toHaveLength(2);
    gesture.end();
    expect(drawn(foot)).toEqual([260, 100, 260, 300]);
    const off = new TestDesk([edge]);
    off.penCase.patch({ snaps: false });
    finish(new LineGesture(off, at(260, 100), 8), at(265, 296));
    expect(drawn(off)).toEqual([260, 100, 265, 296]);
  });

  it('of corners end where they began, closed, and are one step', () => {
    const desk = new TestDesk([]);
    desk.penCase.patch({ line: 'polygon' });
    for (const [x, y] of [
      [100, 100],
      [300, 100],
      [300, 250],
    ] as const)
      finish(new CornerGesture(desk, at(x, y), 8));
    expect(desk.draft.get()).toEqual([100, 100, 300, 100, 300, 250]);
    expect(desk.done).toEqual([]);
    finish(new CornerGesture(desk, at(103, 101), 8));
    expect(desk.draft.get()).toBeUndefined();
    expect(desk.added).toMatchObject([
      { kind: 'path', closed: true, points: [100, 100, 300, 100, 300, 250] },
    ]);
    expect(desk.done).toHaveLength(1);
  });
});

describe('the text tool', () => {
  it('opens a box as wide as one drags, within the page, or the text that is there', () => {
    const desk = new TestDesk([aText({ id: 't', x: 50, y: 60, width: 200 })]);
    finish(new TextGesture(desk, at(400, 300)), at(650, 320));
    expect(desk.textEdit.get()).toMatchObject({ x: 400, y: 300, width: 250 });
    finish(new TextGesture(desk, at(700, 300)));
    expect(desk.textEdit.get()!.x + desk.textEdit.get()!.width).toBeLessThanOrEqual(800);
    finish(new TextGesture(desk, at(80, 72)));
    expect(desk.textEdit.get()).toMatchObject({ mark: { id: 't' }, x: 50, width: 200 });
  });

  it('opens nothing on a page that was turned meanwhile, and no text of somebody else', () => {
    const desk = new TestDesk([aText({ id: 't', author: 'bo' })]);
    finish(new TextGesture(desk, at(80, 72)));
    expect(desk.textEdit.get()!.mark).toBeUndefined();
    desk.textEdit.set(undefined);
    const gesture = new TextGesture(desk, at(80, 72));
    desk.pageId.set('another');
    gesture.end();
    expect(desk.textEdit.get()).toBeUndefined();
  });
});
