import { describe, expect, it } from 'vitest';
import type { Contact, Role, Wishes } from '../src/stage/touchRoles';
import { TouchRoles } from '../src/stage/touchRoles';

type Step = [what: 'down' | 'move' | 'up', id: number, at: number, more?: Partial<Contact>];

/** Plays what was seen of hands on a display. Returns what each contact was there for in the end. */
function play(steps: readonly Step[], wishes: Wishes = {}): Record<number, Role> {
  const roles = new TouchRoles();
  const last = new Map<number, Contact>();
  const found: Record<number, Role> = {};
  for (const [what, id, at, more] of steps) {
    const before = last.get(id) ?? { id, kind: 'touch', x: 400, y: 400, width: 20, height: 24, at };
    const contact: Contact = { ...before, ...more, at };
    last.set(id, contact);
    if (what === 'up') {
      roles.up(id, at);
      continue;
    }
    const { role, takenBack } = what === 'down' ? roles.down(contact, wishes) : roles.move(contact);
    if (what === 'down' || found[id] !== undefined) found[id] = role;
    for (const other of takenBack) found[other] = role === 'pinches' ? 'pinches' : 'rests';
  }
  return found;
}

const pen = { kind: 'pen', width: 1, height: 1 } as const;

describe('what contacts on the glass are there for', () => {
  it.each([60, 100, 150])('two hands that start %i ms apart both write', (apart) => {
    expect(
      play([
        ['down', 1, 0, { x: 300 }],
        ['move', 1, 40, { x: 304 }],
        ['down', 2, apart, { x: 1300 }],
        ['move', 1, apart + 20, { x: 330 }],
        ['move', 2, apart + 30, { x: 1330 }],
      ]),
    ).toEqual({ 1: 'works', 2: 'works' });
  });

  it('two people at a small display both write, each in a half of their own', () => {
    const steps: Step[] = [
      ['down', 1, 0, { x: 450 }],
      ['down', 2, 80, { x: 850 }],
    ];
    expect(play(steps)).toEqual({ 1: 'pinches', 2: 'pinches' });
    expect(play(steps, { halvesAt: 640 })).toEqual({ 1: 'works', 2: 'works' });
  });

  it.each([0, 60, 250, 500])('two fingers of one hand that come %i ms apart move the page', (apart) => {
    expect(
      play([
        ['down', 1, 0],
        ['move', 1, 30, { x: 403 }],
        ['down', 2, apart, { x: 500, y: 340 }],
      ]),
    ).toEqual({ 1: 'pinches', 2: 'pinches' });
  });

  it('a finger that has drawn already goes on drawing when a second one comes', () => {
    const drawn: Step[] = Array.from({ length: 10 }, (_, i) => ['move', 1, 20 * i, { x: 400 + 8 * i }]);
    expect(play([['down', 1, 0], ...drawn, ['down', 2, 220, { x: 520 }]])).toEqual({
      1: 'works',
      2: 'works',
    });
  });

  it('a palm rests: broad from the start, grown broad, or before the pen, beside it and after it', () => {
    expect(play([['down', 1, 0, { width: 90 }]])).toEqual({ 1: 'rests' });
    const growing: Step[] = [20, 40, 70].map((width, i) => ['move', 1, 20 + 20 * i, { width }]);
    expect(play([['down', 1, 0], ...growing, ['move', 1, 100, { x: 450 }]])).toEqual({ 1: 'rests' });
    // The side of the hand comes first, a little way off, and then the tip.
    expect(
      play([
        ['down', 1, 0, { x: 620, y: 560 }],
        ['move', 1, 60, { x: 626 }],
        ['down', 9, 180, { ...pen, x: 500, y: 420 }],
        ['down', 2, 240, { x: 640, y: 600 }],
        ['up', 9, 900],
        ['down', 3, 1000, { x: 600, y: 600 }],
      ]),
    ).toEqual({ 1: 'rests', 9: 'works', 2: 'rests', 3: 'rests' });
    // A pen that only hovers says that the hand will rest.
    expect(
      play([
        ['move', 9, 0, pen],
        ['down', 1, 120],
      ]),
    ).toEqual({ 1: 'rests' });
  });

  it('somebody else’s finger far away writes on beside the pen', () => {
    expect(
      play([
        ['down', 1, 0, { x: 1500 }],
        ['move', 1, 900, { x: 1600 }],
        ['down', 9, 1200, { ...pen, x: 300 }],
        ['down', 2, 1250, { x: 1700 }],
      ]),
    ).toEqual({ 1: 'works', 9: 'works', 2: 'works' });
  });

  it('touches never work beside a pen where that is wished', () => {
    const later: Step[] = [
      ['down', 9, 0, pen],
      ['up', 9, 300],
      ['down', 1, 9000],
    ];
    expect(play(later)).toEqual({ 9: 'works', 1: 'works' });
    expect(play(later, { restless: true })).toEqual({ 9: 'works', 1: 'rests' });
  });
});
