import type { Focus, Mark, Page, Scene, Timer } from '@doodla/core';
import { EMPTY_SCENE } from '@doodla/core';
import type { StepTaken } from '@doodla/core/client';
import { Signal, Store } from '@doodla/core/client';
import { beforeEach, describe, expect, it } from 'vitest';
import { aPage, aShape, aText } from '../../core/test/helpers/marks';
import { announce } from '../src/pages/announcements';

const PAGES: readonly Page[] = [aPage({ id: 'p1' }), aPage({ id: 'p2', title: 'The arch' })];
const STEP = { pages: ['p1'], ofPages: false };
const COUNTDOWN: Timer = {
  kind: 'countdown',
  length: 180_000,
  before: 0,
  startedAt: 1,
  sound: true,
  large: false,
};

/** What is selected, as the desk's own selection says it. */
class Selected {
  chosen: readonly Mark[] = [];
  readonly ids = new Store<ReadonlySet<string>>(new Set());

  marks(): Mark[] {
    return [...this.chosen];
  }
}

const selection = new Selected();
const desk = {
  pageId: new Store<string | undefined>('p1'),
  pages: new Store(PAGES),
  isTeacher: false,
  target: { stepped: new Signal<StepTaken>() },
  selection,
  classroom: { scene: new Store<Scene>(EMPTY_SCENE) },
};
let said: string[];

beforeEach(() => {
  said = [];
  return announce(desk, (sentence) => said.push(sentence));
});

describe('who does not see the page is told', () => {
  it('which page is turned to', () => {
    desk.pageId.set('p2');
    desk.pageId.set('p1');
    expect(said).toEqual(['Page 2 of 2, The arch', 'Page 1 of 2']);
  });

  it('what is taken back and done again', () => {
    desk.target.stepped.tell({ which: 'undo', ...STEP });
    desk.target.stepped.tell({ which: 'redo', ...STEP });
    expect(said).toEqual(['Taken back.', 'Done again.']);
  });

  it('what is selected, and nothing when nothing is', () => {
    selection.chosen = [aText({ text: 'Pier' })];
    desk.selection.ids.set(new Set(['a']));
    selection.chosen = [aText(), aShape()];
    desk.selection.ids.set(new Set(['a', 'b']));
    desk.selection.ids.set(new Set());
    expect(said).toEqual(['Selected: Text: Pier', '2 things are selected']);
  });

  it('that the page is covered and in sight again, once each, however often that moves', () => {
    const cover: Focus = { kind: 'cover', page: 'p1', shared: true, x: 0, y: 0, width: 10, height: 10 };
    desk.classroom.scene.patch({ focus: cover });
    desk.classroom.scene.patch({ focus: { ...cover, height: 20 } });
    desk.classroom.scene.patch({ focus: null });
    expect(said).toEqual(['The page is covered.', 'The whole page is in sight again.']);
  });

  it('how much time there is', () => {
    desk.classroom.scene.patch({ timer: COUNTDOWN });
    desk.classroom.scene.patch({ timer: { ...COUNTDOWN, large: true } });
    desk.classroom.scene.patch({ timer: null });
    desk.classroom.scene.patch({ timer: { ...COUNTDOWN, length: 60_000 } });
    expect(said).toEqual([
      'There are 3 minutes from now.',
      'The time has been taken away.',
      'There is 1 minute from now.',
    ]);
    desk.classroom.scene.patch({ timer: null });
  });
});
