import fc from 'fast-check';
import { beforeEach, describe, expect, it } from 'vitest';
import type { PenPoint } from '../src/desk/gesture';
import { PenCase } from '../src/desk/penCase';
import { ACTIONS } from '../src/desk/shortcuts';
import { TOOL_IDS, TOOLS, toolOf } from '../src/tools/tools';
import type { ToolDesk } from '../src/tools/toolWork';
import { WORK } from '../src/tools/work';
import { freshStorage } from './helpers/fakeStorage';
import { TestDesk } from './helpers/testDesk';

beforeEach(freshStorage);

const at = (x: number, y: number): PenPoint => ({
  x,
  y,
  pressure: 0.5,
  time: 0,
  steady: false,
  centred: false,
});

describe('every tool', () => {
  it('has a key of its own among all keys', () => {
    const keys = Object.values(ACTIONS).map(({ key }) => key);
    expect(new Set(keys).size).toBe(keys.length);
    for (const id of TOOL_IDS) expect(ACTIONS[id].key).toBe(TOOLS[id].key);
  });

  it.each(TOOL_IDS.filter((id) => toolOf(id).colour))('%s takes a colour, shows it and keeps it', (tool) => {
    const penCase = new PenCase('pens');
    penCase.patch({ tool });
    penCase.setColour('#123456');
    expect(penCase.colour).toBe('#123456');
    expect(new PenCase('pens').colour).toBe('#123456');
  });

  it('has one colour in a student’s hand, whatever was kept before', () => {
    fc.assert(
      fc.property(fc.constantFrom(...TOOL_IDS), fc.constantFrom('#d55e00', '#009e73'), (tool, colour) => {
        freshStorage();
        const before = new PenCase('pens');
        before.patch({ tool });
        before.setColour('#ff00ff');
        const penCase = new PenCase('pens', colour);
        expect(penCase.colour ?? colour).toBe(colour);
        expect(JSON.stringify(penCase.get())).not.toContain('#ff00ff');
      }),
    );
  });

  it('fills what an older version of the program did not keep', () => {
    localStorage.setItem('pens', JSON.stringify({ tool: 'stamp', stamp: 'heart' }));
    const { stamp, eraserRadius, outline } = new PenCase('pens').get();
    expect([stamp, eraserRadius, outline.width]).toEqual(['heart', 10, 3]);
  });
});

describe('tools that put something into a box', () => {
  const begin = (desk: TestDesk, tool: 'shape' | 'stamp' | 'note' | 'patch', point: PenPoint) =>
    WORK[tool].begin(point, {
      desk: desk as unknown as ToolDesk,
      pressure: false,
      scale: 1,
      words: undefined,
      penAt: (_, inHand) => inHand,
      onChange: () => undefined,
    })!;

  it.each(['shape', 'stamp', 'note', 'patch'] as const)('%s: as large as it is drawn', (tool) => {
    const desk = new TestDesk([]);
    const gesture = begin(desk, tool, at(100, 100));
    gesture.move([at(180, 180)]);
    expect(gesture.preview.marks).toMatchObject([{ kind: tool, x: 100, width: 80 }]);
    gesture.end();
    expect(desk.added).toMatchObject([{ kind: tool, x: 100, y: 100, width: 80, height: 80 }]);
  });

  it.each(['shape', 'stamp', 'note', 'patch'] as const)('%s: of a ready size round a tap', (tool) => {
    const desk = new TestDesk([]);
    begin(desk, tool, at(300, 200)).end();
    const [mark] = desk.added as { x: number; width: number; y: number; height: number }[];
    expect([mark!.x + mark!.width / 2, mark!.y + mark!.height / 2]).toEqual([300, 200]);
  });

  it('counts on from the highest number on the page', () => {
    const desk = new TestDesk([]);
    desk.penCase.patch({ stamp: 'number' });
    for (let i = 0; i < 3; i++) begin(desk, 'stamp', at(50 * i, 50)).end();
    expect(desk.added.map((mark) => mark.kind === 'stamp' && mark.label)).toEqual(['1', '2', '3']);
  });

  it('opens a note to be typed into', () => {
    const desk = new TestDesk([]);
    begin(desk, 'note', at(300, 200)).end();
    expect(desk.textEdit.get()?.mark?.id).toBe(desk.added[0]!.id);
  });
});
