import type { MarkOf, Scene } from '@doodla/core';
import { EMPTY_SCENE, isScenePart, STRIDE } from '@doodla/core';
import { Store } from '@doodla/core/client';
import type { Compasses, Instrument } from '@doodla/core/instruments';
import { areInstruments, INSTRUMENT_KINDS } from '@doodla/core/instruments';
import { describe, expect, it, vi } from 'vitest';
import type { PenPoint } from '../src/desk/gesture';
import { instrumentsOn, layInstrument, putAngle, putInk, toggleInstrument } from '../src/desk/instruments';
import { keepOwn } from '../src/instruments/keepOwn';
import { keepPixels, knownPixels, showTrueSize } from '../src/instruments/trueSize';
import type { Room } from '../src/room/room';
import { guidedInk } from '../src/tools/pen/guidedInk';
import { freshStorage } from './helpers/fakeStorage';
import { TestDesk } from './helpers/testDesk';

const TEACHER = { id: 'ada', role: 'teacher', tables: [] } as const;
const PEN = { nature: 'pen', colour: '#0072b2', width: 3, opacity: 1 } as const;

/** A class as the desk of whoever is in it sees it. */
function inClass(desk: TestDesk) {
  const scene = new Store<Scene>(EMPTY_SCENE);
  const told: { set: Partial<Scene>; moving: boolean }[] = [];
  desk.classroom = {
    scene,
    setScene(set, moving = false) {
      scene.patch(set);
      told.push({ set, moving });
    },
  };
  return { scene, told };
}

const pen = (x: number, y: number, time = 0): PenPoint => ({ x, y, pressure: 0.5, time, steady: false, centred: false }); // prettier-ignore

describe('instruments on a page', () => {
  it('lie in the middle of what is in sight, of a size that fits there, and are put away by the same action', () => {
    for (const kind of INSTRUMENT_KINDS) {
      const desk = new TestDesk([], TEACHER);
      toggleInstrument(desk, kind);
      const [lying] = instrumentsOn(desk);
      expect(lying).toMatchObject({ isMine: true, instrument: { kind, page: desk.page.id } });
      expect(areInstruments([lying!.instrument])).toBe(true);
      expect(Math.abs(lying!.instrument.x - 400)).toBeLessThan(300);
      toggleInstrument(desk, kind);
      expect(instrumentsOn(desk)).toEqual([]);
    }
  });

  it('are the class’s where a teacher lays them there, told as a part of the scene that the server takes', () => {
    const desk = new TestDesk([], TEACHER);
    const { scene, told } = inClass(desk);
    toggleInstrument(desk, 'ruler');
    toggleInstrument(desk, 'compasses');
    const { instrument } = instrumentsOn(desk)[0]!;
    layInstrument(desk, { ...instrument, turn: 30 }, true);
    expect(told.map(({ moving }) => moving)).toEqual([false, false, true]);
    expect(told.every(({ set }) => isScenePart(set))).toBe(true);
    // The one touched last lies above.
    expect(scene.get().instruments.map(({ kind, turn }) => [kind, turn])).toEqual([['compasses', 0], ['ruler', 30]]); // prettier-ignore
    expect(desk.ownInstruments.get()).toEqual([]);
  });

  it('are seen by students, who have some of their own only where they may', () => {
    const student = new TestDesk([]);
    const { scene } = inClass(student);
    const ruler = { kind: 'ruler', page: student.page.id, x: 0, y: 0, turn: 0, length: 500, units: ['cm', 'mm'], stepped: false } as const; // prettier-ignore
    scene.patch({ instruments: [ruler, { ...ruler, page: 'another' }] });
    toggleInstrument(student, 'protractor');
    expect(instrumentsOn(student).map(({ instrument, isMine }) => [instrument.kind, isMine])).toEqual([
      ['ruler', false],
      ['protractor', true],
    ]);
    expect(scene.get().instruments).toHaveLength(2);
    student.mayMeasure = false;
    expect(instrumentsOn(student)).toHaveLength(1);
  });

  it('come to the page that is shown, as long and as open as they were', () => {
    const desk = new TestDesk([], TEACHER);
    toggleInstrument(desk, 'compasses');
    const { instrument } = instrumentsOn(desk)[0]!;
    layInstrument(desk, { ...(instrument as Compasses), radius: 77, turn: 40 });
    desk.pageId.set('next');
    expect(instrumentsOn(desk)).toEqual([]);
    toggleInstrument(desk, 'compasses');
    expect(instrumentsOn(desk)[0]!.instrument).toMatchObject({ page: 'next', radius: 77, turn: 0 });
  });

  it('lie where they did when the page is loaded again, and what is kept wrongly is left alone', () => {
    freshStorage();
    const room = () => ({ ownInstruments: new Store<readonly Instrument[]>([]), lesson: 'l1', sitting: undefined, seat: undefined }) as unknown as Room; // prettier-ignore
    const [first, second, third] = [room(), room(), room()];
    const stop = keepOwn(first);
    const compasses: Instrument = { kind: 'compasses', page: 'p1', x: 5, y: 6, turn: 0, radius: 90 };
    first.ownInstruments.set([compasses]);
    stop();
    keepOwn(second);
    expect(second.ownInstruments.get()).toEqual([compasses]);
    sessionStorage.setItem('doodla.instruments.l1.', '[{"kind":"ruler"}]');
    keepOwn(third);
    expect(third.ownInstruments.get()).toEqual([]);
  });
});

describe('ink along instruments', () => {
  it('runs along an edge where it begins there, in the style of the pen, as one step', () => {
    const desk = new TestDesk([], TEACHER);
    toggleInstrument(desk, 'ruler');
    const { x, y } = instrumentsOn(desk)[0]!.instrument;
    expect(guidedInk(desk, PEN, pen(x + 50, y + 50), 1)).toBeUndefined();
    const ink = guidedInk(desk, PEN, pen(x + 50, y - 5), 1)!;
    ink.move([pen(x + 120, y + 6, 40), pen(x + 200, y - 6, 90)]);
    expect(ink.preview.ink).toMatchObject({ style: PEN });
    ink.end();
    expect(desk.done).toHaveLength(1);
    const [mark] = desk.added;
    expect(mark).toMatchObject({ kind: 'stroke', style: PEN, pressure: false });
    expect((mark as MarkOf<'stroke'>).points).toEqual([x + 50, y, 0.65, 0, x + 200, y, 0.65, 90]);
  });

  it('is none where the hand only touched the edge, or called it off', () => {
    const desk = new TestDesk([], TEACHER);
    toggleInstrument(desk, 'ruler');
    const { x, y } = instrumentsOn(desk)[0]!.instrument;
    guidedInk(desk, PEN, pen(x + 50, y), 1)!.end();
    const ink = guidedInk(desk, PEN, pen(x + 50, y), 1)!;
    ink.move([pen(x + 150, y)]);
    ink.cancel();
    expect(desk.done).toEqual([]);
  });

  it('turns the compasses as it is drawn, for all to see', () => {
    const desk = new TestDesk([], TEACHER);
    const { told } = inClass(desk);
    toggleInstrument(desk, 'compasses');
    const { x, y, radius } = instrumentsOn(desk)[0]!.instrument as Compasses;
    const ink = guidedInk(desk, PEN, pen(x + radius, y), 1)!;
    ink.move([pen(x, y + 2 * radius, 10)]);
    expect(instrumentsOn(desk)[0]!.instrument.turn).toBeCloseTo(90, 6);
    ink.end();
    expect(told.map(({ moving }) => moving)).toEqual([false, true, true, false]);
    const { points } = desk.added[0] as MarkOf<'stroke'>;
    for (let i = 0; i < points.length; i += STRIDE)
      expect(Math.hypot(points[i]! - x, points[i + 1]! - y)).toBeCloseTo(radius, 1);
  });

  it('is not guided by compasses of somebody else', () => {
    const desk = new TestDesk([]);
    const { scene } = inClass(desk);
    scene.patch({
      instruments: [{ kind: 'compasses', page: desk.page.id, x: 0, y: 0, turn: 0, radius: 90 }],
    });
    expect(guidedInk(desk, PEN, pen(90, 0), 1)).toBeUndefined();
  });

  it('pricks a point, and draws an angle that shows its size, or as ink where no more is allowed', () => {
    const desk = new TestDesk([], TEACHER);
    putInk(desk, [[10, 20]]);
    expect(desk.added[0]).toMatchObject({ points: [10, 20, 0.65, 0, 10, 20, 0.65, 0] });
    const corners: [[number, number], [number, number], [number, number]] = [[90, 0], [0, 0], [0, -90]]; // prettier-ignore
    putAngle(desk, corners);
    expect(desk.added[1]).toMatchObject({ kind: 'path', points: [90, 0, 0, 0, 0, -90], measures: { shown: ['angles'] } }); // prettier-ignore
    vi.spyOn(desk.target, 'allows').mockReturnValue(false);
    putAngle(desk, corners);
    expect(desk.added[2]).toMatchObject({ kind: 'stroke' });
  });
});

describe('true size', () => {
  it('is known once a card was held to this display, and zooms the page to it', () => {
    freshStorage();
    vi.stubGlobal('screen', { width: 1920, height: 1080 });
    vi.stubGlobal('devicePixelRatio', 1);
    const zooms: number[] = [];
    const stage = { view: new Store({ scale: 0.5, x: 0, y: 0 }), zoom: (factor: number) => void zooms.push(factor) }; // prettier-ignore
    expect(showTrueSize(stage as never)).toBe(false);
    keepPixels(5);
    expect(knownPixels()).toBe(5);
    expect(showTrueSize(stage as never)).toBe(true);
    expect(zooms[0]! * 0.5).toBeCloseTo((5 * 25.4) / 96, 10);
    // Another display has another size.
    vi.stubGlobal('screen', { width: 3840, height: 2160 });
    expect(knownPixels()).toBeUndefined();
    vi.unstubAllGlobals();
  });
});
