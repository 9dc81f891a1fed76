import 'reflect-metadata';
import type { Mark } from '@doodla/core';
import { standInId } from '@doodla/core';
import type { AnsweredPage } from '@doodla/core/answers';
import { dropped, tapped } from '@doodla/core/answers';
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { aShape } from '../../core/test/helpers/marks.js';
import type { TestClass } from './helpers/aClass.js';
import { aClass } from './helpers/aClass.js';
import type { Pupil } from './helpers/joining.js';
import { joiner } from './helpers/joining.js';
import { strokeBy } from './helpers/live.js';
import type { Client, TestServer } from './helpers/server.js';
import { signedIn, startServer } from './helpers/server.js';

let server: TestServer;
let teacher: Client;
let at: TestClass;
let wren: Pupil;
let nash: Pupil;
let prepared: Mark[];

const page = () => at.pages[0]!.id;
const box = (id: string, x: number, set: Partial<Mark>): Mark =>
  aShape({ id, page: page(), author: at.me, x, y: 20, width: 40, height: 30, ...set } as never);

beforeAll(async () => {
  server = await startServer();
  teacher = await signedIn(server);
  at = await aClass(server, teacher);
  const join = joiner(server, at);
  [wren, nash] = [await join('Wren'), await join('Nash')];
  const [place, cat, button] = [randomUUID(), randomUUID(), randomUUID()];
  prepared = [
    box(place, 200, { rule: { takes: { things: [cat], sendsBack: true, snaps: true } } }),
    box(cat, 20, { locked: true, rule: { moves: { movement: { how: 'freely' }, copies: false } } }),
    box(button, 100, { rule: { tap: { steps: [{ do: 'hide', marks: [cat] }], once: false } } }),
  ];
  for (const mark of prepared)
    expect((await at.live.submit(at.lesson, [{ do: 'add', mark }])).error).toBeUndefined();
});
afterAll(async () => {
  for (const { live } of [wren, nash, at]) live.close();
  await server.remove();
});

let count = 0;
const seenBy = (pupil: Pupil, marks: readonly Mark[]): AnsweredPage => ({
  space: 'class',
  author: pupil.id,
  originals: prepared,
  original: (id) => prepared.find((mark) => mark.id === id),
  now: (id) =>
    marks.find((mark) => mark.id === standInId(id, 'class')) ?? prepared.find((mark) => mark.id === id),
  order: () => `a${count++}5`,
  newId: () => randomUUID(),
  time: () => 1e12,
  chance: Math.random,
});

const written = async () => (await at.live.snapshot(at.sitting)).marks;
const answers = async (pupil: Pupil, marks: readonly Mark[]) =>
  (
    await pupil.live.submit(
      at.sitting,
      marks.map((mark) => ({ do: 'add', mark })),
    )
  ).error?.code;

describe('answering prepared things in a class', () => {
  it('is let by their rules, however much they are locked; whoever answers last has answered', async () => {
    await at.live.ask('pens', { sitting: at.sitting.id, up: true });
    const first = dropped(seenBy(wren, []), prepared[1]!, { from: [40, 35], to: [210, 40] });
    expect(first.verdict).toBe('right');
    expect(await answers(wren, first.marks)).toBeUndefined();
    const second = dropped(seenBy(nash, await written()), prepared[1]!, { from: [220, 35], to: [90, 150] });
    expect(await answers(nash, second.marks)).toBeUndefined();
    const [stands, ...others] = await written();
    expect(others).toEqual([]);
    expect(stands).toMatchObject({ id: standInId(prepared[1]!.id, 'class'), author: nash.id, x: 70, y: 135 });
    expect(await answers(wren, tapped(seenBy(wren, [stands!]), prepared[2]!).marks)).toBeUndefined();
    expect(await written()).toMatchObject([{ hidden: true, x: 70 }]);
  });

  it('is refused where no rule lets it, and while pens are down', async () => {
    const [stands] = await written();
    const stretched = { ...stands!, author: nash.id, hidden: false, width: 90 } as Mark;
    expect(await answers(nash, [stretched])).toBe('not-allowed');
    const made = {
      ...strokeBy(nash.id, page()),
      rule: { takes: { things: [], sendsBack: true, snaps: true } },
    };
    expect(await answers(nash, [made])).toBe('not-allowed');
    const odd = { ...strokeBy(at.me, page()), rule: { tap: { steps: [{ do: 'run' }], once: false } } };
    expect((await at.live.submit(at.sitting, [{ do: 'add', mark: odd as never }])).error?.code).toBe(
      'bad-mark',
    );
    await at.live.ask('pens', { sitting: at.sitting.id, up: false });
    const again = dropped(seenBy(nash, [stands!]), prepared[1]!, { from: [90, 150], to: [99, 160] });
    expect(await answers(nash, again.marks)).toBe('pens-down');
    expect(await written()).toEqual([stands]);
  });

  it('goes to one’s own copy where the page is handed out as copies', async () => {
    await at.live.ask('pens', { sitting: at.sitting.id, up: true });
    await at.live.ask('ways', { sitting: at.sitting.id, ways: { [page()]: 'own' } });
    const { marks } = dropped(seenBy(wren, []), prepared[1]!, { from: [40, 35], to: [140, 150] });
    expect(await answers(wren, marks)).toBeUndefined();
    const space = `student:${wren.id}` as const;
    const own = (await written()).find((mark) => mark.space === space);
    expect(own?.id).toBe(standInId(prepared[1]!.id, space));
    expect((await nash.live.snapshot(at.sitting)).marks.some((mark) => mark.space === space)).toBe(false);
  });

  it('waits for its turn where students take turns, and goes on to the next with an answer', async () => {
    await at.live.ask('ways', { sitting: at.sitting.id, ways: { [page()]: 'class' } });
    const turns = { students: [wren.id, nash.id], at: 0 };
    await at.live.ask('scene', { sitting: at.sitting.id, set: { turns }, moving: false });
    const carry = async (pupil: Pupil, to: [number, number]) => {
      const seen = seenBy(pupil, await written());
      const { x, y } = seen.now(prepared[1]!.id) as { x: number; y: number } & Mark;
      return answers(pupil, dropped(seen, prepared[1]!, { from: [x + 20, y + 15], to }).marks);
    };
    expect(await carry(nash, [210, 40])).toBe('not-your-turn');
    // Moving about is no answer.
    expect(await carry(wren, [120, 150])).toBeUndefined();
    expect(await carry(nash, [210, 40])).toBe('not-your-turn');
    expect(await carry(wren, [210, 40])).toBeUndefined();
    await expect.poll(async () => (await at.live.enter(at.sitting)).scene.turns?.at).toBe(1);
    expect(await carry(wren, [90, 150])).toBe('not-your-turn');
    expect(await carry(nash, [90, 150])).toBeUndefined();
    await at.live.ask('scene', { sitting: at.sitting.id, set: { turns: null }, moving: false });
    expect(await carry(wren, [95, 155])).toBeUndefined();
  });
});

it('in a copied lesson taps go to the copies of pages', async () => {
  const [first, second] = at.pages;
  const rule = { tap: { steps: [{ do: 'page', page: second!.id }], once: false } } as const;
  const button = box(randomUUID(), 300, { rule });
  expect((await at.live.submit(at.lesson, [{ do: 'add', mark: button }])).error).toBeUndefined();
  const { body } = await teacher.send<{ id: string }>('POST', `/api/lessons/${at.lesson.id}/copies`, {
    title: 'Again',
  });
  const lesson = { kind: 'lesson', id: body.id } as const;
  const { pages } = await at.live.open(lesson);
  const { marks } = await at.live.snapshot(lesson);
  const steps = marks.flatMap((mark) => mark.rule?.tap?.steps ?? []);
  expect(steps).toContainEqual({ do: 'page', page: pages![1]!.id });
  expect(pages!.map(({ id }) => id)).not.toContain(first!.id);
});
