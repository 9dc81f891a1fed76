import type { Change, Mark } from '@doodla/core';
import { isMark } from '@doodla/core';
import type { Glue, GluedMark } from '@doodla/core/glue';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { aShape, aStroke } from '../../core/test/helpers/marks';
import { MOST_MARKS, PAGE, PageLog } from '../src/page/pageLog';

/** A page with one paragraph that may be moved, enlarged or gone. */
class Ground {
  box: { x: number; y: number; width: number; height: number } | undefined = {
    x: 0,
    y: 0,
    width: 100,
    height: 20,
  };
  readonly top = {} as Document;

  glueOf(): Glue {
    const quote = { exact: 'words', prefix: '', suffix: '', start: 0 };
    return { to: 'words', frames: [], quote, at: this.box! };
  }

  takeHold() {
    return this.box && { scrollers: [], stays: false, box: () => this.box };
  }
}

const onPage = (mark: Mark): Mark => ({ ...mark, page: PAGE });
const add = (mark: Mark): Change => ({ do: 'add', mark: onPage(mark) });
const shape = (id: string) => aShape({ id, x: 10, y: 20, width: 30, height: 40 });
const places = (log: PageLog) =>
  [...log.state.marks.values()].map((mark) => ('x' in mark ? [mark.id, mark.x, mark.y] : [mark.id]));

describe('the marks of a page', () => {
  it('lie where their words are, for hands and eyes alike', () => {
    const ground = new Ground();
    const log = new PageLog(ground);
    log.perform([add(shape('a'))]);
    ground.box = { x: 50, y: 300, width: 100, height: 20 };
    expect(log.measure()).toBe(true);
    expect(places(log)).toEqual([['a', 60, 320]]);
    expect(log.marks.within({ x: 60, y: 320, width: 1, height: 1 })).toHaveLength(1);
    expect(log.marks.within({ x: 10, y: 20, width: 1, height: 1 })).toHaveLength(0);
    // What nothing has moved is not drawn anew.
    expect(log.measure()).toBe(false);
  });

  it('are changed where they lie now, and glued to what is there', () => {
    const ground = new Ground();
    const log = new PageLog(ground);
    log.perform([add(shape('a'))]);
    ground.box = { x: 0, y: 100, width: 100, height: 20 };
    log.measure();
    log.perform([{ do: 'patch', mark: 'a', set: { x: 15 } }]);
    ground.box = { x: 0, y: 200, width: 100, height: 20 };
    log.measure();
    expect(places(log)).toEqual([['a', 15, 220]]);
    // A new colour is no new place.
    const { glue } = log.get('a')!.glued;
    log.perform([{ do: 'patch', mark: 'a', set: { style: { line: '#ff0000' } } }]);
    expect(log.get('a')!.glued.glue).toBe(glue);
    log.undo();
    log.undo();
    expect(places(log)).toEqual([['a', 10, 220]]);
  });

  it('wait while their place is gone, and are back with it', () => {
    const ground = new Ground();
    const log = new PageLog(ground);
    log.perform([add(shape('a'))]);
    const { box } = ground;
    ground.box = undefined;
    log.measure();
    expect(places(log)).toEqual([]);
    expect(log.all().map(({ matrix }) => matrix)).toEqual([undefined]);
    ground.box = box;
    log.measure(undefined, true);
    expect(places(log)).toEqual([['a', 10, 20]]);
  });

  it('are as they were after any steps that are all undone, and as they are after all are done again', () => {
    const ids = ['a', 'b', 'c'];
    const step = fc.oneof(
      fc.constantFrom(...ids).map((id): Change => add(shape(id))),
      fc.constantFrom(...ids).map((mark): Change => ({ do: 'remove', mark })),
      fc
        .tuple(fc.constantFrom(...ids), fc.nat(500))
        .map(([mark, x]): Change => ({ do: 'patch', mark, set: { x } })),
    );
    const moves = fc.array(fc.tuple(fc.nat(400), fc.nat(400)), { minLength: 12, maxLength: 12 });
    fc.assert(
      fc.property(
        fc.array(fc.array(step, { minLength: 1, maxLength: 3 }), { maxLength: 12 }),
        moves,
        (steps, places) => {
          const ground = new Ground();
          const log = new PageLog(ground);
          const at = (n: number) => {
            ground.box = { x: places[n]![0], y: places[n]![1], width: 100, height: 20 };
            log.measure();
          };
          const glued = () =>
            new Map(log.all().map(({ glued: one }): [string, GluedMark] => [one.mark.id, one]));
          steps.forEach((changes, n) => {
            at(n);
            log.perform(changes);
          });
          const end = glued();
          steps.forEach(() => log.undo());
          expect(glued()).toEqual(new Map());
          expect(log.status.get().canUndo).toBe(false);
          steps.forEach(() => log.redo());
          expect(glued()).toEqual(end);
          expect(log.marks.size).toBe(end.size);
        },
      ),
    );
  });

  it('are refused where they are none, or too many', () => {
    const log = new PageLog(new Ground());
    const refused: string[] = [];
    log.refused.subscribe((why) => refused.push(why));
    const far = onPage(aShape({ x: 1e7 }));
    expect(isMark(far)).toBe(false);
    expect(log.perform([{ do: 'add', mark: far }])).toBeUndefined();
    const many = Array.from({ length: MOST_MARKS + 1 }, (_, i) => add(aStroke({ id: `s${i}` })));
    expect(log.allows(many)).toBe(false);
    expect(log.perform(many)).toBeUndefined();
    expect(refused).toEqual(['bad-mark', 'too-many']);
    expect(log.all()).toEqual([]);
  });

  it('of others are laid and taken away without being steps', () => {
    const log = new PageLog(new Ground());
    const performed: string[] = [];
    log.performed.subscribe((ids) => performed.push(...ids));
    log.lay([onPage(shape('g'))], []);
    expect(places(log)).toEqual([['g', 10, 20]]);
    log.undo();
    expect(log.all()).toHaveLength(1);
    log.lay([], ['g']);
    expect([log.all().length, performed]).toEqual([0, []]);
  });
});
