import type { Rect } from '../../geometry/rect.js';
import type { Making } from '../making.js';
import { checkCount, MOVES, taking } from '../making.js';
import type { Paper } from '../paper.js';
import { under } from '../paper.js';
import { ExerciseProblem } from '../problem.js';
import { MOST_LETTERS } from '../rows.js';
import { shuffled } from '../seeded.js';

const MOST_GAPS = 40;
/** Distance of lines against the letters, so that cards lie between. */
const LINE = 2.1;
/** Letters of the text against others at most. */
const LARGE = 1.6;
/** Part of the room that the text may take where words lie below. */
const ABOVE = 0.72;

/** A word of the text, or a gap with what is right in it; `glued` follows the one before without a space. */
type Piece = { glued: boolean } & ({ word: string } | { answers: string[] });

/** A piece with its place on the page. */
interface Laid {
  piece: Piece | 'end';
  x: number;
  y: number;
  width: number;
}

/** A text with gaps, marked by square brackets: words lie below to be moved there at the easiest, else they are typed. */
export function gaps({ paper, room, text, level, chance }: Making): void {
  const pieces = readGaps(text);
  const answers = pieces.flatMap((piece) => (piece !== 'end' && 'answers' in piece ? [piece.answers] : []));
  if (answers.length === 0) throw new ExerciseProblem('no-gap');
  checkCount(answers.length, 1, MOST_GAPS);
  const isBank = level === 'easy';
  const [above, below] = isBank ? under(room, ABOVE, paper.size) : [room, room];
  const { laid, size } = laidIn(paper, above, pieces, isBank);
  for (const run of runsOf(laid)) {
    const { x, y, width } = run;
    paper.words(run.text, { x, y, width: width + size, height: LINE * size }, { align: 'left', size });
  }
  const boxes = laid.flatMap(({ piece, ...at }) =>
    piece !== 'end' && 'answers' in piece ? [{ x: at.x, y: at.y, width: at.width, height: LINE * size }] : [],
  );
  const end = Math.max(...laid.map(({ y }) => y)) + LINE * size;
  if (isBank) return bank(paper, { boxes, answers, below: { ...below, y: end + size }, size, chance });
  for (const [i, { x, y, width, height }] of boxes.entries()) {
    const line = '_'.repeat(Math.max(3, Math.floor((width - size * 0.4) / paper.widthOf('_', size))));
    const fill = { as: 'words', answers: answers[i]!, typos: level === 'medium' } as const;
    paper.words(line, { x, y, width, height }, { size }, { rule: { fill }, alt: String(i + 1) });
  }
}

interface Bank {
  boxes: readonly Rect[];
  answers: readonly string[][];
  below: Rect;
  size: number;
  chance: () => number;
}

function bank(paper: Paper, { boxes, answers, below, size, chance }: Bank): void {
  const ids = answers.map(() => paper.newId());
  const isRight = (at: number, word: string) => answers[at]!.some((answer) => answer === word);
  for (const [i, box] of boxes.entries()) {
    const things = ids.filter((_, at) => isRight(i, answers[at]![0]!));
    paper.place({ ...box, y: box.y + box.height * 0.08, height: box.height * 0.84 }, taking(things, 'easy'), {
      alt: String(i + 1),
    });
  }
  const gap = size * 0.5;
  const height = size * 1.6;
  let [x, y] = [below.x, below.y];
  for (const at of shuffled([...answers.keys()], chance)) {
    const word = answers[at]![0]!;
    const width = paper.widthOf(word, size) + size * 0.9;
    if (x + width > below.x + below.width) [x, y] = [below.x, y + height + gap];
    paper.card(word, { x, y, width, height }, { id: ids[at]!, rule: MOVES });
    x += width + gap;
  }
}

/** A text with its gaps: `[answer]`, or `[one|another]` where several are right. */
export function readGaps(text: string): (Piece | 'end')[] {
  const pieces: (Piece | 'end')[] = [];
  for (const line of text.slice(0, MOST_LETTERS).trim().split(/\r?\n/)) {
    let glued = false;
    for (const part of line.match(/\[[^\]]*\]|\s+|[^\s[]+|\[/g) ?? []) {
      const answers = /^\[(.*)\]$/
        .exec(part)?.[1]
        ?.split('|')
        .map((answer) => answer.trim())
        .filter((answer) => answer !== '');
      if (/^\s/.test(part)) glued = false;
      else {
        pieces.push(answers && answers.length > 0 ? { glued, answers } : { glued, word: part });
        glued = true;
      }
    }
    pieces.push('end');
  }
  return pieces;
}

/** The pieces in lines, in letters as small as they have to be. */
function laidIn(
  paper: Paper,
  room: Rect,
  pieces: readonly (Piece | 'end')[],
  isBank: boolean,
): { laid: Laid[]; size: number } {
  for (let size = paper.size * LARGE; ; size *= 0.94) {
    const laid = lines(paper, room, pieces, size, isBank);
    const last = laid.at(-1);
    if (!last || last.y + LINE * size <= room.y + room.height) return { laid, size };
    if (size < 8) throw new ExerciseProblem('no-room');
  }
}

function lines(
  paper: Paper,
  { x: left, y: top, width }: Rect,
  pieces: readonly (Piece | 'end')[],
  size: number,
  isBank: boolean,
): Laid[] {
  const space = paper.widthOf('x x', size) - paper.widthOf('xx', size);
  const gapOf = (answers: readonly string[]) =>
    Math.max(3.2 * size, paper.widthOf(answers[0]!, size) + 1.4 * size);
  // Places of one width do not tell which word is right.
  const widest = Math.max(
    0,
    ...pieces.map((piece) => (piece !== 'end' && 'answers' in piece ? gapOf(piece.answers) : 0)),
  );
  const widthOf = (piece: Piece) =>
    'word' in piece ? paper.widthOf(piece.word, size) : isBank ? widest : gapOf(piece.answers);
  let [x, y] = [left, top];
  return pieces.map((piece, i) => {
    if (piece === 'end') {
      const at = { piece, x, y, width: 0 };
      [x, y] = [left, y + LINE * size];
      return at;
    }
    const own = widthOf(piece);
    if (x > left && !piece.glued) x += space;
    if (x > left && x + own + gluedTo(pieces, i, widthOf) > left + width) [x, y] = [left, y + LINE * size];
    const at = { piece, x, y, width: own };
    x += own;
    return at;
  });
}

/** How wide what is glued to a piece is, which goes onto the next line with it. */
function gluedTo(pieces: readonly (Piece | 'end')[], at: number, widthOf: (piece: Piece) => number): number {
  const next = pieces[at + 1];
  return next && next !== 'end' && next.glued ? widthOf(next) + gluedTo(pieces, at + 1, widthOf) : 0;
}

/** Words that follow one another on a line, as one text. */
function runsOf(laid: readonly Laid[]): { text: string; x: number; y: number; width: number }[] {
  const runs: { text: string; x: number; y: number; width: number }[] = [];
  let isOpen = false;
  for (const { piece, x, y, width } of laid) {
    if (piece === 'end' || 'answers' in piece) {
      isOpen = false;
      continue;
    }
    const last = runs.at(-1);
    if (isOpen && last?.y === y) {
      last.text += (piece.glued ? '' : ' ') + piece.word;
      last.width = x + width - last.x;
    } else runs.push({ text: piece.word, x, y, width });
    isOpen = true;
  }
  return runs;
}
