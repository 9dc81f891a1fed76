import fc from 'fast-check';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Step } from './histories/step';
import { act, anyStep, take } from './histories/step';
import { shown, World } from './histories/world';

/** `npm run bench:histories` runs many more. */
const HISTORIES = Number(process.env.DOODLA_HISTORIES ?? 150);
const SEED = Number(process.env.DOODLA_SEED ?? 0) || undefined;

let world: World;

beforeEach(() => vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] }));
afterEach(async () => {
  await world.end();
  vi.useRealTimers();
});

/** At rest everybody sees what the server has and they may see, and nothing waits. */
async function expectAgreement(): Promise<void> {
  const ticking = setInterval(() => vi.advanceTimersByTime(1000), 1);
  await agree().finally(() => clearInterval(ticking));
}

async function agree(): Promise<void> {
  await world.rest();
  for (const member of world.members) {
    const { client, actor } = member;
    const all = [...client.state.pages.keys()].map((page) => client.need(page));
    await Promise.all([...all, world.rest()]);
    expect(shown(client.state)).toEqual(shown(await world.truth(actor)));
    expect(client.pending).toEqual([]);
    expect(await member.waiting()).toEqual([]);
  }
}

/** What somebody does last and takes back is as if it had not been, for everybody. */
async function expectUndoRestores(): Promise<void> {
  for (const member of world.members) {
    const before = shown(await world.truth(world.members[0]!.actor));
    const known = new Set(member.client.state.marks.keys());
    if (!act({ do: 'add', who: 0, which: 0, own: false }, member)) continue;
    const added = [...member.client.state.marks.values()].find(({ id }) => !known.has(id));
    await expectAgreement();
    member.client.lookAt(added!.page);
    member.client.undo();
    await expectAgreement();
    expect(shown(await world.truth(world.members[0]!.actor))).toEqual(before);
  }
}

async function run(steps: readonly Step[], students: number): Promise<void> {
  world = new World(students);
  await world.begin();
  for (const step of steps) {
    await take(step, world);
    vi.advanceTimersByTime(200);
  }
  world.letWrite();
  await expectAgreement();
  await expectUndoRestores();
}

const history = fc.array(anyStep, { maxLength: 60, size: 'max' });

describe('histories of a class', () => {
  it(
    `end alike for everybody, whatever lines and server do (${HISTORIES} of them)`,
    { timeout: 3_600_000 },
    async () => {
      await fc.assert(
        fc.asyncProperty(history, fc.integer({ min: 1, max: 4 }), async (steps, students) => {
          await run(steps, students).finally(() => world.end());
        }),
        { numRuns: HISTORIES, ...(SEED && { seed: SEED }), endOnFailure: HISTORIES > 300 },
      );
    },
  );

  it('end alike after more than can be caught up on one by one', async () => {
    const steps: Step[] = [
      { do: 'add', who: 1, which: 0, own: false },
      { do: 'up', who: 1, most: 4 },
      { do: 'settle' },
      { do: 'cut', who: 1 },
      { do: 'move', who: 1, which: 0, own: false },
      { do: 'flood' },
      { do: 'mend', who: 1 },
    ];
    await run(steps, 2);
  });

  it('the outbox goes on after a reload between the storing and the hearing of it', async () => {
    await run(
      [
        { do: 'add', who: 1, which: 0, own: false },
        { do: 'up', who: 1, most: 1 },
        { do: 'settle' },
        { do: 'reload', who: 1 },
        { do: 'add', who: 1, which: 1, own: false },
      ],
      1,
    );
  });

  it('undo after an offline change and a reload takes back the change, not the mark', async () => {
    world = new World(1);
    await world.begin();
    const [, wren] = world.members;
    act({ do: 'add', who: 1, which: 0, own: false }, wren!);
    await expectAgreement();
    wren!.line.cut();
    act({ do: 'move', who: 1, which: 7, own: false }, wren!);
    await world.settle();
    await wren!.reload();
    await expectAgreement();
    const [mark] = wren!.client.state.marks.values();
    expect(mark).toMatchObject({ x: 7 });
    wren!.client.lookAt(mark!.page);
    wren!.client.undo();
    await expectAgreement();
    expect([...wren!.client.state.marks.values()]).toMatchObject([{ x: 10 }]);
  });

  it('what is written without a line is kept when the class ends meanwhile, and joins in when it goes on', async () => {
    world = new World(1);
    await world.begin();
    const [, wren] = world.members;
    wren!.line.cut();
    act({ do: 'add', who: 1, which: 0, own: false }, wren!);
    world.situation.ended = true;
    wren!.line.mend();
    for (let i = 0; i < 10; i++) {
      wren!.line.deliverUp(9);
      await world.settle();
      wren!.line.deliverDown(9);
      await world.settle();
    }
    expect(wren!.client.status.get()).toMatchObject({ held: 'ended', waiting: 1 });
    expect(wren!.client.state.marks.size).toBe(1);
    world.letWrite();
    await expectAgreement();
    expect((await world.truth(wren!.actor)).marks.size).toBe(1);
  });

  it('what is written without a line while pens go down joins in when they are up again', async () => {
    world = new World(1);
    await world.begin();
    const [, wren] = world.members;
    wren!.line.cut();
    act({ do: 'add', who: 1, which: 0, own: false }, wren!);
    world.situation.pensUp = false;
    for (let i = 0; i < 10; i++) {
      wren!.line.mend();
      wren!.line.deliverUp(9);
      await world.settle();
      wren!.line.deliverDown(9);
      await world.settle();
      if (i === 5) await wren!.reload();
    }
    expect(wren!.client.status.get()).toMatchObject({ held: 'pens-down', waiting: 1 });
    world.letWrite();
    await expectAgreement();
    expect((await world.truth(wren!.actor)).marks.size).toBe(1);
    expect(wren!.refusals).toEqual([]);
  });

  it('a step that can no longer be taken back does not stand before those under it', async () => {
    world = new World(1);
    await world.begin();
    const [teacher, wren] = world.members;
    act({ do: 'add', who: 1, which: 0, own: false }, wren!);
    act({ do: 'add', who: 1, which: 0, own: false }, wren!);
    await expectAgreement();
    const [first, second] = [...wren!.client.state.marks.values()];
    teacher!.client.perform([{ do: 'patch', mark: second!.id, set: { locked: true } }]);
    await expectAgreement();
    wren!.client.lookAt(first!.page);
    wren!.client.undo();
    await expectAgreement();
    expect([...wren!.client.state.marks.keys()]).toEqual([second!.id]);
  });
});
