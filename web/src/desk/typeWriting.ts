import type { Change, Mark, MarkOf } from '@doodla/core';
import { MAX_TEXT_LENGTH, TEXT_SIZE, textLayout } from '@doodla/core';
import type { HandSample, WrittenText } from '@doodla/core/handwriting';
import { t } from '../words';
import type { Desk } from './desk';
import { englishWords, ownHand } from './ownHand';
import type { TypedLine, WritingOffer } from './shapeOffer';
import { WorkerLink } from './workerLink';
import type { WritingWorker } from './writing.worker';

type Ink = MarkOf<'stroke'>;
export type TypeDesk = Pick<
  Desk,
  | 'isTeacher'
  | 'mayTouch'
  | 'newMark'
  | 'pageId'
  | 'penCase'
  | 'shapeOffer'
  | 'target'
  | 'targetMarks'
  | 'tellProblem'
>;

/** Reads strokes; in a worker, but for tests. */
export type WritingReader = (strokes: readonly (readonly number[])[]) => Promise<WrittenText[]>;

/** How high a small letter of the usual font is, as part of its size (measured from its file). */
const X_HEIGHT = 0.508;
/** A line of typed text may be so much wider than what was written. */
const WIDER = 1.1;
/** Room beside a line, as part of the letters' size, so that it does not break. */
const ROOM = 0.5;

const link = new WorkerLink<WritingWorker>(
  () => new Worker(new URL('./writing.worker.ts', import.meta.url), { type: 'module' }),
);

async function readByWorker(desk: TypeDesk, strokes: readonly (readonly number[])[]): Promise<WrittenText[]> {
  const hand = await ownHand(desk.isTeacher);
  return link.ask((worker) => worker.read(strokes, hand, englishWords.get()));
}

/** Samples of a hand from a line that was copied; undefined where something else was written. Throws where it cannot be read. */
export function copiedSamples(
  strokes: readonly (readonly number[])[],
  text: string,
): Promise<HandSample[] | undefined> {
  return link.ask((worker) => worker.samples(strokes, text));
}

/** Puts typed text in the place of handwriting, in one step, and offers what else each word may be. */
export async function typeWriting(
  desk: TypeDesk,
  marks: readonly Mark[],
  read: WritingReader = (strokes) => readByWorker(desk, strokes),
): Promise<void> {
  const ink = marks.filter((mark): mark is Ink => mark.kind === 'stroke' && desk.mayTouch(mark));
  if (ink.length === 0) return desk.tellProblem(t('writing.nothing'));
  const lines = await read(ink.map(({ points }) => points)).catch(() => undefined); // Told in the next line.
  if (!lines) return desk.tellProblem(t('shapes.notReached'));
  if (lines.length === 0) return desk.tellProblem(t('writing.unread'));
  // Somebody may have wiped the ink away meanwhile.
  if (!ink.every(({ id }) => desk.targetMarks?.get(id))) return;
  replace(desk, ink, lines);
}

function replace(desk: TypeDesk, ink: readonly Ink[], lines: readonly WrittenText[]): void {
  const page = desk.pageId.get();
  const typed = lines.flatMap((line) => {
    const mark = textOf(desk, line, line.strokes.map((n) => ink[n]!)); // prettier-ignore
    return mark ? [{ line, mark }] : [];
  });
  const used = typed.flatMap(({ line }) => line.strokes.map((n) => ink[n]!.id));
  const step = desk.target.perform([
    ...used.map((id): Change => ({ do: 'remove', mark: id })),
    ...typed.map(({ mark }): Change => ({ do: 'add', mark })),
  ]);
  if (step === undefined || page === undefined) return;
  const offered = typed.map(({ line, mark }): TypedLine => {
    const words = line.words.map(({ readings }) => readings);
    return { mark: mark.id, words, text: words.map(([word]) => word ?? '') };
  });
  desk.shapeOffer.set({ page, lines: offered, ink: used, step });
}

/** A line as a text in its place, as large as its small letters were and in the colour of its ink. */
function textOf(desk: TypeDesk, line: WrittenText, ink: readonly Ink[]): MarkOf<'text'> | undefined {
  const common = desk.newMark();
  const [first] = ink;
  const text = line.words.map(({ readings }) => readings[0] ?? '').join(' ').slice(0, MAX_TEXT_LENGTH); // prettier-ignore
  if (!common || !first || text === '') return undefined;
  const { page, space, order, pane } = first;
  const style = { ...desk.penCase.get().text, colour: first.style.colour, background: null };
  const wanted = between(line.xHeight / X_HEIGHT, TEXT_SIZE.min, TEXT_SIZE.max);
  const widthAt = (size: number) => {
    const { lines } = textLayout({ style: { ...style, size }, text, width: 1e5 });
    return lines[0]?.width ?? 0;
  };
  const most = (line.right - line.left) * WIDER;
  const size = round(
    between(Math.min(wanted, (wanted * most) / widthAt(wanted)), TEXT_SIZE.min, TEXT_SIZE.max),
  );
  const mark = {
    ...common,
    ...({ page, space, order, kind: 'text', rotation: 0 } as const),
    ...(pane !== undefined && { pane }),
    style: { ...style, size },
    text,
    x: round(line.left),
    width: round(widthAt(size) + ROOM * size),
  };
  const [laid] = textLayout(mark).lines;
  return { ...mark, y: round(line.base - (laid?.baseline ?? size)) };
}

/** Takes another reading of a word that was just typed out. */
export function takeWord(
  desk: TypeDesk,
  offer: WritingOffer,
  line: number,
  word: number,
  text: string,
): void {
  const old = offer.lines[line]!;
  const changed = { ...old, text: old.text.map((each, i) => (i === word ? text : each)) };
  const set = { text: changed.text.join(' ') };
  if (desk.target.perform([{ do: 'patch', mark: old.mark, set }]) === undefined) return;
  const lines = offer.lines.map((each) => (each === old ? changed : each));
  desk.shapeOffer.set({ ...offer, lines });
}

/** Gives the ink back that was typed out. */
export function asWritten(desk: TypeDesk, offer: WritingOffer): void {
  desk.target.takeBack(offer.step);
  desk.shapeOffer.set(undefined);
}

const between = (value: number, least: number, most: number) => Math.min(most, Math.max(least, value));
const round = (value: number) => Math.round(value * 100) / 100;
