import { beforeEach, describe, expect, it } from 'vitest';
import { PenCase, placesThatDiffer } from '../src/desk/penCase';
import { freshStorage } from './helpers/fakeStorage';

beforeEach(freshStorage);

describe('the pen case', () => {
  it('colours the tool in hand and no other, and is kept', () => {
    const penCase = new PenCase('pens');
    penCase.setColour('#d55e00');
    penCase.patch({ tool: 'note' });
    penCase.setColour('#56b4e9');
    const again = new PenCase('pens');
    expect(again.get().pen.colour).toBe('#d55e00');
    expect(again.get().noteColour).toBe('#56b4e9');
    expect(again.get().text.colour).toBe('#000000');
    expect(again.colour).toBe('#56b4e9');
  });

  it('takes ready pens in hand, and keeps the pen in hand in their place', () => {
    const penCase = new PenCase('pens');
    const highlighter = penCase.get().ready[3]!;
    penCase.takeReady(highlighter);
    expect(penCase.get().tool).toBe('highlighter');
    penCase.keepReady(0);
    expect(penCase.get().ready[0]).toEqual(highlighter);
    penCase.patch({ tool: 'eraser' });
    expect(penCase.colour).toBeUndefined();
    penCase.keepReady(1);
    expect(penCase.get().ready[1]!.nature).toBe('pen');
  });

  it('gives a student one colour for everything', () => {
    const { pen, highlighter, text, outline, stampColour, ready } = new PenCase('student', '#157fb8').get();
    const colours = [pen, highlighter, text, ...ready].map(({ colour }) => colour);
    expect(new Set([...colours, outline.line, stampColour])).toEqual(new Set(['#157fb8']));
  });

  it('has no two ready pens that write alike for whoever has one colour', () => {
    const { ready } = new PenCase('student', '#157fb8').get();
    const places = placesThatDiffer(ready);
    expect(places).toEqual([0, 2, 3]);
    expect(placesThatDiffer(new PenCase('pens').get().ready)).toEqual([0, 1, 2, 3]);
  });
});
