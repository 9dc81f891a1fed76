import type { ClassState, LogRef, Mark, Page, Rect, Rules, Scene, Space } from '@doodla/core';
import { byOrder, classChange, EMPTY_SCENE, LIVE, packPoints, RULES_AT_FIRST } from '@doodla/core';
import 'fake-indexeddb/auto';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { aClassState, aPerson } from '../../core/test/helpers/classes';
import { FakeLine } from '../../core/test/helpers/fakeLine';
import { aPage, aStroke, common, LINE_STYLE } from '../../core/test/helpers/marks';
import type { Glass } from '../src/desk/glass';
import type { RoomOptions } from '../src/room/room';
import { Workspace } from '../src/room/workspace';
import { placePages } from '../src/shelf/placePages';
import { wipeOf } from '../src/roster/wipeOf';
import { canvasStandIn } from './helpers/canvasStandIn';
import { freshStorage } from './helpers/fakeStorage';

const PAGES = ['p1', 'p2', 'p3'].map((id, i) => aPage({ id, order: `a${i}` }));
const STATE = aClassState({ title: 'Bridges', page: 'p2', pensUp: true, people: [aPerson()], now: 0 });

let line: FakeLine;
let workspace: Workspace;
let atServer: ClassState;
let said: string[];

/** Opens a class or lesson whose pages have come. */
async function open(options: Partial<RoomOptions> = {}, pages: Page[] = PAGES, state = STATE): Promise<void> {
  line = new FakeLine();
  const isTeacher = options.token === undefined;
  const actor = isTeacher
    ? { id: 'ada', role: 'teacher', tables: [] }
    : { id: 'wren', role: 'student', tables: [] };
  line.answers = { [LIVE.open]: { actor, seq: 0, pages, written: [], operations: [], undoable: [] } };
  atServer = state;
  line.answers[LIVE.enter] = state;
  line.answers[LIVE.submit] = { seq: 0 };
  workspace = new Workspace({ lesson: 'l1', sitting: 's1', ...options }, line);
  said = [];
  workspace.room.problems.subscribe((message) => said.push(message));
  workspace.room.notices.subscribe((message) => said.push(message));
  await vi.waitUntil(() => workspace.main.pageId.get() !== undefined);
}

/** Something of the class changes at the server, which tells of it. */
function told(set: Partial<ClassState>): void {
  const after = { ...STATE, ...set, version: atServer.version + 1 };
  line.tell(LIVE.classChange, classChange(atServer, after)!);
  atServer = after;
}
const scene = (set: Partial<Scene>) => line.tell(LIVE.scene, { sitting: 's1', set });
const asked = (event: string) => line.requests.filter((sent) => sent.event === event);
const arrives = (mark: Mark, seq: number) =>
  line.tell(LIVE.operations, {
    log: 's1',
    logged: [
      { seq, author: mark.author, at: 0, operation: { id: `op${seq}`, changes: [{ do: 'add', mark }] } },
    ],
  });

beforeEach(() => {
  freshStorage();
  canvasStandIn();
});
afterEach(() => workspace.close());

describe('a teacher’s workspace', () => {
  it('opens on the page that the class is on, and takes the class along', async () => {
    await open();
    expect(workspace.main.pageId.get()).toBe('p2');
    workspace.main.turnBy(1);
    expect(workspace.main.pageId.get()).toBe('p3');
    expect(asked(LIVE.turn).at(-1)!.message).toEqual({ sitting: 's1', page: 'p3' });
  });

  it('lays the page that the class sees beside it on a second desk of the same room', async () => {
    await open();
    scene({ split: { page: 'p1', at: 0.5 } });
    const side = workspace.side.get()!;
    expect(side.room).toBe(workspace.room);
    expect(side.target).toBe(workspace.main.target);
    expect([workspace.main.pageId.get(), side.pageId.get()]).toEqual(['p2', 'p1']);
    side.turnTo('p3');
    // The desk beside turns the page beside, never the class's.
    expect(asked(LIVE.turn)).toEqual([]);
    expect(asked(LIVE.scene).at(-1)!.message).toMatchObject({ set: { split: { page: 'p3' } } });
    scene({ split: null });
    expect(workspace.side.get()).toBeUndefined();
    expect(workspace.active.get()).toBe(workspace.main);
  });

  it('selects, types and pours on each desk for itself', async () => {
    await open();
    scene({ split: { page: 'p1', at: 0.5 } });
    const side = workspace.side.get()!;
    side.draft.set([1, 2]);
    workspace.main.settle();
    expect(side.draft.get()).toEqual([1, 2]);
    side.settle();
    expect(side.draft.get()).toBeUndefined();
  });

  it('tells each desk what is stale on its own page', async () => {
    await open();
    scene({ split: { page: 'p1', at: 0.5 } });
    const stale: Record<string, unknown[]> = { p2: [], p1: [] };
    workspace.main.layers.forEach((layer) => [layer.on('p1'), layer.on('p2')]);
    workspace.main.stale.subscribe((what) => stale['p2']!.push(what));
    workspace.side.get()!.stale.subscribe((what) => stale['p1']!.push(what));
    arrives(aStroke({ page: 'p1', author: 'wren' }), 1);
    expect(stale['p1']!.flat()).toHaveLength(1);
    expect(stale['p2']!.flat()).toEqual([]);
  });

  it('tells of marks that others put on a page that is looked at, once', async () => {
    await open();
    const added: string[] = [];
    workspace.room.added.subscribe(({ id }) => added.push(id));
    workspace.main.layers.forEach((layer) => layer.on('p2'));
    arrives(aStroke({ id: 'theirs', page: 'p2', author: 'wren' }), 1);
    arrives(aStroke({ id: 'elsewhere', page: 'p3', author: 'wren' }), 2);
    expect(added).toEqual(['theirs']);
  });

  it('has a page when the shown one is taken out', async () => {
    await open();
    scene({ split: { page: 'p3', at: 0.5 } });
    const operation = { id: 'gone', changes: [{ do: 'patchPage', page: 'p3', set: { removed: true } }] };
    line.tell(LIVE.operations, { log: 's1', logged: [{ seq: 1, author: 'ada', at: 0, operation }] });
    expect(workspace.room.pages.get().map(({ id }) => id)).toEqual(['p1', 'p2']);
    expect(workspace.side.get()!.pageId.get()).toBe('p1');
  });

  it('offers a page like the last one where there is none to turn to', async () => {
    await open({}, PAGES, { ...STATE, page: 'p3' });
    let offered = 0;
    workspace.main.atEnd.subscribe(() => (offered += 1));
    workspace.main.turnBy(1);
    expect(offered).toBe(1);
    workspace.main.addPageLikeThis();
    expect(workspace.room.pages.get()).toHaveLength(4);
  });
});

describe('what is in another’s space', () => {
  const wren = 'student:wren';
  const shown = () =>
    workspace.main.layers
      .flatMap((layer) =>
        layer
          .on('p2')
          .all()
          .map(({ id }) => id),
      )
      .sort();

  it('is neither drawn nor listed, until it is worked in', async () => {
    await open();
    arrives(aStroke({ id: 'ours', page: 'p2', author: 'wren' }), 1);
    arrives(aStroke({ id: 'hers', page: 'p2', author: 'wren', space: wren }), 2);
    arrives(aStroke({ id: 'his', page: 'p2', author: 'tove', space: 'student:tove' }), 3);
    expect(shown()).toEqual(['ours']);
    expect(workspace.main.targetMarks!.all()).toHaveLength(1);
    let renewed = 0;
    workspace.main.stale.subscribe((what) => (renewed += what === 'all' ? 1 : 0));
    workspace.room.spaces.opened.set({ page: 'p2', space: wren });
    expect([renewed, shown()]).toEqual([1, ['hers', 'ours']]);
    expect(workspace.main.newMark()!.space).toBe(wren);
  });

  it('is not seen while it is drawn either', async () => {
    await open();
    const style = { nature: 'pen', colour: '#000000', width: 4, opacity: 1 } as const;
    const drawn = (stroke: string, space: Space) => {
      const head = { style, pressure: false, space };
      const points = packPoints([1, 1, 0.5, 0, 2, 2, 0.5, 9])!;
      const parts = [{ stroke, author: 'wren', head, from: 0, points }];
      line.tell(LIVE.drawn, { log: 's1', page: 'p2', parts });
    };
    drawn('ours', 'class');
    drawn('hers', wren);
    const wet = () => workspace.room.ink.onPage('p2', workspace.main.shownSpace).map(({ id }) => id);
    expect(wet()).toEqual(['ours']);
    workspace.room.spaces.opened.set({ page: 'p2', space: wren });
    expect(wet()).toEqual(['ours', 'hers']);
  });
});

describe('a student’s workspace', () => {
  const wren = { token: 'secret', colour: '#0072b2' };

  it('follows the class, and stays where its student has gone when that is allowed', async () => {
    await open(wren);
    workspace.main.turnTo('p1');
    expect(said).toEqual(['Your teacher turns the pages for now.']);
    told({ page: 'p3' });
    expect(workspace.main.pageId.get()).toBe('p3');
    const roaming = { scene: { ...EMPTY_SCENE, roam: true } };
    told({ page: 'p3', ...roaming });
    workspace.main.turnTo('p1');
    told({ page: 'p2', ...roaming });
    expect(workspace.main.pageId.get()).toBe('p1');
    workspace.main.rejoinClass();
    expect(workspace.main.pageId.get()).toBe('p2');
  });

  it('puts pens down and up with the class', async () => {
    await open(wren);
    const { main, room } = workspace;
    expect([room.mayWrite, room.mayTake('pen'), room.mayTake('pointer')]).toEqual([true, true, false]);
    main.draft.set([1, 1]);
    told({ pensUp: false });
    expect([room.mayWrite, room.mode.get(), main.draft.get()]).toEqual([false, 'use', undefined]);
    main.setMode('write');
    expect(room.mode.get()).toBe('use');
    told({ pensUp: true });
    expect(room.mode.get()).toBe('write');
  });

  it('may touch what is theirs, and nothing that is locked', async () => {
    await open(wren);
    const { room } = workspace;
    expect(room.mayTouch(aStroke({ author: 'wren' }))).toBe(true);
    expect(room.mayTouch(aStroke({ author: 'wren', locked: true }))).toBe(false);
    expect(room.mayTouch(aStroke({ author: 'ada' }))).toBe(false);
    expect(room.nameOf('wren')).toBe('you');
    expect(room.nameOf('ada')).toBe('the teacher');
  });
});

describe('what the teacher of a class lets its students do', () => {
  const rules = (set: Partial<Rules>) => told({ rules: { ...RULES_AT_FIRST, ...set } });

  it('takes tools away before they are tried, and puts a pen in the hand that had one of them', async () => {
    await open({ token: 'w' });
    const { room } = workspace;
    workspace.main.takeTool('shape');
    rules({ freedom: 'words' });
    expect(room.penCase.get().tool).toBe('pen');
    expect(
      (['pen', 'highlighter', 'text', 'note', 'shape', 'stamp'] as const).map((id) => room.mayTake(id)),
    ).toEqual([true, true, true, true, false, false]);
    expect(room.mayPut('picture')).toBe(false);
    rules({ pointing: true });
    expect([room.mayTake('shape'), room.mayPoint]).toEqual([true, true]);
  });

  it('is nothing to the teacher’s own tools', async () => {
    await open();
    rules({ freedom: 'ink' });
    expect(workspace.room.mayTake('shape')).toBe(true);
  });

  it('takes the pen of one student', async () => {
    await open({ token: 'w' });
    told({ people: [aPerson({ pen: 'down' })] });
    expect([workspace.room.mayWrite, workspace.room.mode.get()]).toEqual([false, 'use']);
    told({ pensUp: false, people: [aPerson({ pen: 'up' })] });
    expect(workspace.room.mayWrite).toBe(true);
  });

  it('makes a student’s browser read the pages anew where other marks are to be seen', async () => {
    await open({ token: 'w' });
    const opens = () =>
      asked(LIVE.open).filter(({ message }) => (message['log'] as LogRef).kind === 'sitting').length;
    const before = opens();
    told({ sight: 'another' });
    await vi.waitUntil(() => opens() > before);
    expect(asked(LIVE.open).at(-1)!.message).not.toHaveProperty('since');
  });
});

describe('a page that is handed out as copies', () => {
  it('is worked on in the space that the class’s teacher says, page by page', async () => {
    await open({ token: 'w' });
    const { main, room } = workspace;
    told({ ways: { p2: 'own' } });
    expect([main.space, room.spaces.on('p1')]).toEqual(['student:wren', 'class']);
    told({ ways: { p2: 'tables' }, tables: [{ id: '3', students: ['wren'] }] });
    expect(main.newMark()!.space).toBe('table:3');
  });

  it('shows one copy to all, on which nobody else writes', async () => {
    await open({ token: 'w' });
    const copy = { page: 'p2', space: 'student:tove', named: true } as const;
    told({ ways: { p2: 'own' }, copy });
    const { main, room } = workspace;
    expect([room.mayWrite, main.shownSpace, main.space]).toEqual([false, 'student:tove', 'student:wren']);
    told({ ways: { p2: 'own' }, copy: { ...copy, space: 'student:wren' } });
    expect(room.mayWrite).toBe(true);
  });

  it('is kept as pages of the class, each with all that is seen on it', async () => {
    await open();
    const common = aStroke({ id: 'common', author: 'ada', page: 'p2' });
    const hers = aStroke({ id: 'hers', author: 'wren', page: 'p2', space: 'student:wren' });
    workspace.main.pageActions.keepCopies('p2', [
      { title: 'Wren', marks: [common, hers] },
      { title: 'Tove', marks: [] },
    ]);
    const titles = workspace.room.pages.get().map(({ title }) => title);
    expect(titles.slice(2, 4)).toEqual(['Wren', 'Tove']);
    const kept = workspace.room.pages.get()[2]!;
    const marks = [...workspace.room.target.state.marks.values()].filter(({ page }) => page === kept.id);
    expect(marks.map(({ author, space }) => [author, space])).toEqual([
      ['ada', 'class'],
      ['wren', 'class'],
    ]);
  });
});

describe('the middle, where things are put that nobody gave a place', () => {
  it('is that of what is seen of the page, not of what lies beside it', async () => {
    await open();
    const { main } = workspace;
    const { width, height } = main.page!;
    const seeing = (visible: Rect) => main.glass.set({ visible } as Glass);
    // The page fits, with a panel over the right half of the window.
    seeing({ x: -100, y: -50, width: 2 * width + 200, height: height + 100 });
    expect(main.middle()).toEqual({ x: width / 2, y: height / 2 });
    // A corner of it is seen enlarged.
    seeing({ x: width - 100, y: height - 60, width: 400, height: 400 });
    expect(main.middle()).toEqual({ x: width - 50, y: height - 30 });
    // Nothing of it is seen.
    seeing({ x: width + 100, y: 0, width: 200, height: 100 });
    expect(main.middle()).toEqual({ x: width + 200, y: 50 });
  });
});

describe('pages that are put in', () => {
  const joined = (id: string, to: string): Mark => ({
    ...common(),
    ...{ id, author: 'ada', page: 'p2', order: 'a1' },
    kind: 'path',
    course: 'straight',
    points: [0, 0, 50, 50],
    closed: false,
    heads: 'end',
    from: null,
    to: { mark: to, x: 0, y: 0.5 },
    style: LINE_STYLE,
  });
  const marksOn = (page: string) =>
    [...workspace.room.target.state.marks.values()].filter((mark) => mark.page === page).sort(byOrder);

  it('have lines that are joined to what is on them, not to what is on the original', async () => {
    await open();
    arrives(aStroke({ id: 'end', author: 'ada', page: 'p2', order: 'a0' }), 1);
    arrives(joined('line', 'end'), 2);
    workspace.main.pageActions.duplicate('p2');
    const [end, line] = marksOn(workspace.main.pageId.get()!);
    expect(end!.id).not.toBe('end');
    expect(line).toMatchObject({ to: { mark: end!.id } });
  });

  it('come after the shown one, as one’s own and as one step that can be taken back', async () => {
    await open();
    const { main, room } = workspace;
    const before = room.pages.get().map(({ id }) => id);
    const part = (title: string) => ({
      page: aPage({ id: 'elsewhere', title }),
      marks: [aStroke({ id: 'hers', author: 'bo', page: 'elsewhere' })],
    });
    const step = placePages(main, before[0]!, [part('First'), part('Second')]);
    const pages = room.pages.get();
    expect(pages.map(({ title }) => title).slice(1, 3)).toEqual(['First', 'Second']);
    expect(main.pageId.get()).toBe(pages[1]!.id);
    expect(marksOn(pages[2]!.id)).toMatchObject([{ author: room.target.actor!.id }]);
    room.target.takeBack(step!);
    expect(room.pages.get().map(({ id }) => id)).toEqual(before);
  });
});

describe('whose marks are shown', () => {
  it('are of those one wants to see, drawn and listed, until one writes oneself', async () => {
    await open();
    const { room, main } = workspace;
    for (const [i, author] of ['wren', 'ada'].entries())
      arrives(aStroke({ id: author, author, page: 'p2' }), i + 1);
    const shown = () =>
      room.layers
        .at(-1)!
        .on('p2')
        .all()
        .map(({ id }) => id);
    room.shown.of.set('no-students');
    expect(shown()).toEqual(['ada']);
    room.shown.of.set({ author: 'wren' });
    expect(shown()).toEqual(['wren']);
    main.target.perform([{ do: 'add', mark: aStroke({ id: 'mine', author: 'ada', page: 'p2' }) }]);
    expect(room.shown.of.get()).toBe('everybody');
    expect(shown()).toEqual(['ada', 'mine', 'wren']);
  });

  it('are not those that the teacher has hidden', async () => {
    await open();
    arrives(aStroke({ author: 'wren', page: 'p2' }), 1);
    told({ rules: { ...RULES_AT_FIRST, hidden: ['wren'] } });
    expect(workspace.room.layers.at(-1)!.on('p2').size).toBe(0);
  });

  it('are taken away of one student on one page or all', async () => {
    await open();
    const { room } = workspace;
    for (const [i, page] of ['p1', 'p2', 'p2'].entries())
      arrives(aStroke({ id: `m${i}`, author: 'wren', page, locked: i === 2 }), i + 1);
    const wiped: string[] = [];
    room.target.perform = (changes) => {
      for (const change of changes) if (change.do === 'remove') wiped.push(change.mark);
      return 'step';
    };
    expect(await wipeOf(room, 'wren', 'p2')).toBe(1);
    expect(wiped.splice(0)).toEqual(['m1']);
    expect(await wipeOf(room, 'wren')).toBe(2);
    expect(wiped).toEqual(['m0', 'm1']);
    expect(await wipeOf(room, 'tove')).toBe(0);
  });
});

describe('a workspace that only looks', () => {
  it('neither follows the class nor turns its page, and writes nothing', async () => {
    await open({ looking: true, startPage: 'p1' });
    const { main, room } = workspace;
    expect(main.pageId.get()).toBe('p1');
    told({ page: 'p3' });
    main.turnTo('p2');
    expect(main.pageId.get()).toBe('p2');
    expect(asked(LIVE.turn)).toEqual([]);
    expect([room.mayWrite, room.mayPoint, room.mayAddPages]).toEqual([false, false, false]);
  });
});
