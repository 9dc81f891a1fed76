import { archBridge, trussBridge } from './bridges.js';
import type { Sheet } from './sheet.js';
import { COLOURS, makeDocument } from './sheet.js';

const LEFT = 56;

function heading(sheet: Sheet, title: string): void {
  sheet.text(title, LEFT, 70, 22, { bold: true });
  sheet.text('Quillmere Community School · Technology · Bridges', LEFT, 92, 10, { colour: COLOURS.soft });
}

function room(sheet: Sheet, y: number, count: number): void {
  for (let i = 0; i < count; i++)
    sheet.line(LEFT, y + i * 30, sheet.width - LEFT, y + i * 30, 0.8, COLOURS.line);
}

function questions(sheet: Sheet): void {
  heading(sheet, 'Standing up to load');
  sheet.text('Name: ______________________   Class: __________', LEFT, 124, 12);
  sheet.text('1.  Label the deck, the arch and the banks. Draw how the load travels.', LEFT, 160, 13);
  archBridge(sheet, { x: 150, y: 250, span: 300 });
  sheet.text('2.  Mark every bar that is pulled in red and every bar that is pushed in blue.', LEFT, 400, 13);
  trussBridge(sheet, { x: 150, y: 510, span: 300 });
  sheet.text('3.  A truss of 28 g carries 1 240 g. What load does each gram carry?', LEFT, 660, 13);
  room(sheet, 700, 3);
}

function answers(sheet: Sheet): void {
  heading(sheet, 'Standing up to load: answers');
  sheet.text('1.  The deck lies on the arch; the arch pushes outwards into both banks.', LEFT, 150, 13);
  sheet.text('2.  Lower bars are pulled, upper bars are pushed; slanting bars take turns.', LEFT, 190, 13);
  trussBridge(sheet, { x: 150, y: 310, span: 300 });
  sheet.text('3.  1 240 g ÷ 28 g = 44.3, so each gram of the truss carries about 44 g.', LEFT, 470, 13);
  sheet.text('Think on: what would happen to question 3 if the truss were twice as long?', LEFT, 520, 13);
  room(sheet, 560, 5);
}

/** The worksheet of the unit: questions, then answers, on A4. */
export function makeWorksheet(): Promise<Uint8Array> {
  return makeDocument('Standing up to load: worksheet', [595.28, 841.89], [questions, answers]);
}
