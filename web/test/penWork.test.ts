import { LIVE } from '@doodla/core';
import { Store } from '@doodla/core/client';
import 'fake-indexeddb/auto';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { aClassState, aPerson } from '../../core/test/helpers/classes';
import { FakeLine } from '../../core/test/helpers/fakeLine';
import { aPage } from '../../core/test/helpers/marks';
import type { PenPoint } from '../src/desk/gesture';
import { BrowserOutbox } from '../src/live/outbox';
import { Workspace } from '../src/room/workspace';
import { PenWork } from '../src/stage/penWork';
import { pageShows } from '../src/ui/moments';
import { canvasStandIn } from './helpers/canvasStandIn';
import { freshStorage } from './helpers/fakeStorage';

type Parts = ConstructorParameters<typeof PenWork>;

const at = (x: number): PenPoint => ({ x, y: 100, pressure: 0.5, time: x, steady: false, centred: false });

let workspace: Workspace;

beforeEach(() => {
  freshStorage();
  canvasStandIn();
});
afterEach(() => {
  workspace.close();
  vi.restoreAllMocks();
});

it('what is drawn before it is known what an earlier load has left unsent is put on the page after that', async () => {
  let outboxComes = () => undefined as void;
  const outbox = new Promise<[]>((resolve) => (outboxComes = () => resolve([])));
  vi.spyOn(BrowserOutbox.prototype, 'load').mockReturnValue(outbox);
  const line = new FakeLine();
  const actor = { id: 'wren', role: 'student', tables: [] };
  line.answers = {
    [LIVE.open]: { actor, seq: 0, pages: [aPage({ id: 'p1' })], written: [], operations: [], undoable: [] },
    [LIVE.enter]: aClassState({ page: 'p1', pensUp: true, people: [aPerson()], now: 0 }),
    [LIVE.submit]: new Promise(() => undefined),
  };
  workspace = new Workspace({ lesson: 'l1', sitting: 's1', token: 'of Wren' }, line);
  const { main: desk, room } = workspace;
  await vi.waitUntil(() => desk.pageId.get() !== undefined && room.mayWrite);
  pageShows.come();

  const placing = { panes: [], view: new Store({ scale: 1, x: 0, y: 0 }), size: { width: 800, height: 600 } };
  const pens = new PenWork(
    desk,
    placing as unknown as Parts[1],
    { recording: new Store(undefined), words: undefined } as unknown as Parts[2],
    { colourAt: () => '#000000' },
  );
  // The tools are here: what comes from now on waits for the log alone.
  await import('../src/tools/work');
  await vi.waitUntil(() => desk.target.state.pages.size > 0);
  const stroke = pens.begin(at(50), false, false);
  stroke!.move([at(120), at(200)]);
  stroke!.end();
  expect(desk.target.state.marks.size).toBe(0);
  outboxComes();
  await vi.waitUntil(() => desk.target.state.marks.size > 0);
  expect([...desk.target.state.marks.values()]).toMatchObject([
    { kind: 'stroke', author: 'wren', page: 'p1' },
  ]);
});
