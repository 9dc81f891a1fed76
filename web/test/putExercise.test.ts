import type { Change, Page } from '@doodla/core';
import { FORMATS, isMark, SpatialIndex } from '@doodla/core';
import { makeExercise } from '@doodla/core/exercises';
import { describe, expect, it } from 'vitest';
import { aPage, aStroke, common } from '../../core/test/helpers/marks.js';
import { soundsOf } from '../src/exercises/mediaItems';
import { putExercise, roomOn, sheetSize } from '../src/exercises/putExercise';

const WORDS = {
  ...{
    across: '',
    down: '',
    most: '',
    least: '',
    isTrue: '',
    isFalse: '',
    spin: '',
    roll: '',
    pick: '',
    language: 'en',
  },
};
const made = makeExercise({
  ...{ kind: 'match', text: 'a = 1\nb = 2', title: '', level: 'easy', seed: 1, words: WORDS },
  area: { x: 0, y: 0, ...FORMATS.wide },
});

function deskWith(page: Page | undefined) {
  const done: Change[][] = [];
  const index = new SpatialIndex();
  index.set(aStroke({ id: 'there', order: 'a5' }));
  const desk = {
    page,
    layers: [{ on: () => index }],
    newMark: (id = 'x', on = page?.id ?? '') => ({ ...common(), id, page: on }),
    settle: () => undefined,
    target: {
      state: { pages: new Map(page && [[page.id, page]]), marks: new Map() },
      perform(changes: Change[]) {
        done.push(changes);
        return 'step';
      },
    },
  };
  return { desk: desk as never, done };
}

describe('putting an exercise', () => {
  const page = aPage({ id: 'page-1' });

  it('adds a page after the shown one and all marks, as one step', () => {
    const { desk, done } = deskWith(page);
    const { page: id } = putExercise(desk, made, { isNew: true, title: 'Words' })!;
    expect(done).toHaveLength(1);
    const [first, ...adds] = done[0]!;
    expect(first).toMatchObject({ do: 'addPage', page: { id, title: 'Words' } });
    expect((first as Change & { do: 'addPage' }).page.order > page.order).toBe(true);
    const marks = adds.flatMap((change) => (change.do === 'add' ? change.mark : []));
    expect(marks.every((mark) => isMark(mark) && mark.page === id)).toBe(true);
    const ids = new Set(marks.map((mark) => mark.id));
    expect(ids.size).toBe(made.length);
    // Rules name the new marks.
    for (const { rule } of marks)
      for (const thing of rule?.takes?.things ?? []) expect(ids.has(thing)).toBe(true);
    const orders = marks.map(({ order }) => order);
    expect(orders).toEqual([...orders].sort());
  });

  it('puts it above all that is on the shown page', () => {
    const { desk, done } = deskWith(page);
    expect(putExercise(desk, made, { isNew: false, title: '' })).toEqual({ page: 'page-1', step: 'step' });
    const marks = done[0]!.flatMap((change) => (change.do === 'add' ? change.mark : []));
    expect(marks).toHaveLength(made.length);
    expect(marks.every(({ order, page: on }) => order > 'a5' && on === 'page-1')).toBe(true);
  });

  it('has a page like a sheet of paper, else a wide one', () => {
    expect(sheetSize(page)).toEqual({ width: page.width, height: page.height });
    expect(sheetSize(aPage({ surface: { kind: 'web', material: 'm' } }))).toEqual(FORMATS.wide);
    expect(roomOn(undefined, true)).toEqual({ x: 0, y: 0, ...FORMATS.wide });
  });

  it('knows sounds by what their pages are called', () => {
    const sound = aPage({
      id: 's',
      title: ' bark ',
      surface: { kind: 'media', material: 'm', form: 'sound' },
    });
    const film = aPage({ id: 'f', title: 'film', surface: { kind: 'media', material: 'm', form: 'video' } });
    expect([...soundsOf([sound, film, page])]).toEqual([['bark', { kind: 'sound', page: 's' }]]);
  });
});
