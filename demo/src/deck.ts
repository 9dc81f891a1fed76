import { archBridge, beamBridge, suspensionBridge, trussBridge } from './bridges.js';
import type { Sheet } from './sheet.js';
import { COLOURS, makeDocument } from './sheet.js';

const PLACE = { x: 210, y: 270, span: 540 };

function slide(
  title: string,
  notes: readonly string[],
  draw: (sheet: Sheet) => void,
): (sheet: Sheet) => void {
  return (sheet) => {
    sheet.box(0, 0, sheet.width, 12, COLOURS.steel);
    sheet.text(title, 48, 76, 38, { bold: true });
    sheet.text('Standing up to load: how bridges work', 48, 520, 14, { colour: COLOURS.soft });
    sheet.lines(notes, 48, 430, 22);
    draw(sheet);
  };
}

function forces(sheet: Sheet): void {
  sheet.box(130, 180, 700, 34, COLOURS.stone, COLOURS.ink);
  sheet.text('Compression: pushed together', 150, 160, 20, { colour: COLOURS.push });
  sheet.arrow(60, 197, 122, 197, COLOURS.push);
  sheet.arrow(900, 197, 838, 197, COLOURS.push);
  sheet.box(130, 310, 700, 34, COLOURS.stone, COLOURS.ink);
  sheet.text('Tension: pulled apart', 150, 290, 20, { colour: COLOURS.pull });
  sheet.arrow(122, 327, 60, 327, COLOURS.pull);
  sheet.arrow(838, 327, 900, 327, COLOURS.pull);
}

const LOADS = [
  ['Model', 'Span', 'Own mass', 'Load carried', 'Load per gram'],
  ['Beam of card', '30 cm', '24 g', '310 g', ''],
  ['Arch of card', '30 cm', '31 g', '890 g', ''],
  ['Truss of straws', '30 cm', '28 g', '1 240 g', ''],
  ['String and card', '30 cm', '35 g', '980 g', ''],
];

function loadTable(sheet: Sheet): void {
  const [left, top, row] = [48, 120, 54];
  const columns = [0, 230, 350, 500, 690, 864];
  LOADS.forEach((cells, r) => {
    const y = top + r * row;
    if (r === 0) sheet.box(left, y, columns.at(-1)!, row, COLOURS.water);
    cells.forEach((cell, c) => sheet.text(cell, left + columns[c]! + 12, y + 35, 20, { bold: r === 0 }));
  });
  for (let r = 0; r <= LOADS.length; r++)
    sheet.line(left, top + r * row, left + columns.at(-1)!, top + r * row, 1.2, COLOURS.soft);
  for (const x of columns) sheet.line(left + x, top, left + x, top + LOADS.length * row, 1.2, COLOURS.soft);
}

/** The deck of the unit: six wide slides. */
export function makeDeck(): Promise<Uint8Array> {
  return makeDocument(
    'Standing up to load: how bridges work',
    [960, 540],
    [
      slide(
        '1  The beam',
        [
          'A plank across a gap. It bends: its top is pushed, its underside pulled.',
          'Where would you put the pillars?',
        ],
        (sheet) => beamBridge(sheet, PLACE),
      ),
      slide(
        '2  The arch',
        ['The load runs along the curve into the banks.', 'Every part of it is pushed together.'],
        (sheet) => archBridge(sheet, PLACE),
      ),
      slide(
        '3  The truss',
        ['Triangles keep their shape. Which bars are pulled, which are pushed?'],
        (sheet) => trussBridge(sheet, PLACE),
      ),
      slide(
        '4  The suspension bridge',
        ['The deck hangs from the cables, the cables hang from the towers.'],
        (sheet) => suspensionBridge(sheet, PLACE),
      ),
      slide(
        '5  Tension and compression',
        ['Mark each bridge: red where it is pulled, blue where it is pushed.'],
        forces,
      ),
      slide(
        '6  What our models carried',
        ['Work out the load per gram. Which model is the best for its mass?'],
        loadTable,
      ),
    ],
  );
}
