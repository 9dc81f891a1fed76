import { choice, figure, FigureError, number, words } from '../figure.js';
import type { Pen } from '../pen.js';
import { INK, WARM } from '../pen.js';

/** A note: steps of the white keys above middle C, how it is raised, and how many beats it lasts. */
interface Note {
  step: number;
  raised: -1 | 0 | 1;
  beats: number;
}

const NAMES = 'CDEFGAB';
/** Semitones of the white keys above C. */
const SEMITONES = [0, 2, 4, 5, 7, 9, 11];
const LONGEST_TUNE = 64;

/**
 * Notes as they are typed: a letter, # or b, an octave (4 from middle C on, as ISO 16 counts them), and after a colon the beats:
 * "C4 D4 F#4:2 Bb3:0.5". Throws FigureError `notes`.
 */
export function notesOf(text: string): Note[] {
  const typed = text.split(/\s+/).filter((note) => note !== '');
  if (typed.length > LONGEST_TUNE) throw new FigureError('notes', typed[LONGEST_TUNE]);
  return typed.map((note) => {
    const [, name, sign, octave, beats] = /^([A-Ga-gHh])([#b]?)([1-7])(?::(0\.5|1|2|3|4))?$/.exec(note) ?? [];
    if (name === undefined || octave === undefined) throw new FigureError('notes', note);
    const letter = name.toUpperCase() === 'H' ? 'B' : name.toUpperCase();
    return {
      step: NAMES.indexOf(letter) + 7 * (Number(octave) - 4),
      raised: sign === '#' ? 1 : sign === 'b' ? -1 : 0,
      beats: Number(beats ?? 1),
    };
  });
}

/** What is heard of notes: hertz in equal temperament from A4 at 440 (ISO 16:1975), and beats. */
export function pitchesOf(text: string): { hertz: number; beats: number }[] {
  return notesOf(text).map(({ step, raised, beats }) => {
    const octave = Math.floor(step / 7);
    const semitones = 12 * octave + SEMITONES[step - 7 * octave]! + raised - 9;
    return { hertz: 440 * 2 ** (semitones / 12), beats };
  });
}

const [LINE, TOP] = [14, 70];
/** Steps above middle C of the lowest line. */
const LOWEST = { treble: 2, bass: -10 } as const;

function head(pen: Pen, x: number, y: number, beats: number): void {
  const points = Array.from({ length: 24 }, (_, i) => {
    const angle = (2 * Math.PI * i) / 24;
    const [a, b] = [9 * Math.cos(angle), 6 * Math.sin(angle)];
    return [x + a * 0.94 + b * 0.34, y - a * 0.34 + b * 0.94];
  });
  pen.area(points.flat(), { fill: beats < 2 ? INK : '#ffffff', width: 2.4 });
}

const staff = figure({
  subject: 'music',
  width: 640,
  height: 200,
  fields: { clef: choice(['treble', 'bass']), notes: words('C4 D4 E4 F4 G4:2 G4:2', 240) },
  draw(pen, { clef, notes }) {
    const bottom = TOP + 4 * LINE;
    for (let i = 0; i < 5; i++) pen.line([10, TOP + i * LINE, 630, TOP + i * LINE], { width: 1.4 });
    const y = (step: number) => bottom - ((step - LOWEST[clef]) * LINE) / 2;
    if (clef === 'treble') trebleClef(pen, y(4));
    else bassClef(pen, y(-4));
    const all = notesOf(notes);
    const gap = Math.min(60, 550 / Math.max(1, all.length));
    for (const [i, { step, raised, beats }] of all.entries()) {
      const [x, at] = [80 + gap * (i + 0.5), y(step)];
      for (let line = bottom + LINE; line <= at; line += LINE)
        pen.line([x - 15, line, x + 15, line], { width: 1.4 });
      for (let line = TOP - LINE; line >= at; line -= LINE)
        pen.line([x - 15, line, x + 15, line], { width: 1.4 });
      if (raised !== 0) pen.text(raised > 0 ? '♯' : '♭', x - 20, at, { size: 22 });
      head(pen, x, at, beats);
      const up = at > TOP + 2 * LINE;
      const stem = up ? [x + 9, at - 2, x + 9, at - 46] : [x - 9, at + 2, x - 9, at + 46];
      if (beats < 4) pen.line(stem, { width: 2 });
      if (beats === 0.5)
        pen.line([stem[2]!, stem[3]!, stem[2]! + 12, stem[3]! + (up ? 18 : -18)], { width: 3.4 });
      if (beats === 3) pen.circle(x + 17, at - 3, 3, { fill: INK, edge: false });
    }
    pen.line([630, TOP, 630, bottom], { width: 3 });
  },
});

/** A sign that curls round the line of G. */
function trebleClef(pen: Pen, g: number): void {
  const spiral = Array.from({ length: 40 }, (_, i) => {
    const turn = (i / 39) * 2.2 * Math.PI + Math.PI / 2;
    const radius = 4 + (i / 39) * 15;
    return [38 + radius * Math.cos(turn), g + radius * Math.sin(turn) * 0.95];
  });
  pen.line(spiral.flat(), { width: 3 });
  pen.line([...spiral.at(-1)!, 54, g - 24, 46, g - 54, 38, g - 40, 45, g + 34, 38, g + 44, 30, g + 38], {
    width: 3,
  });
}

/** A sign that begins on the line of F, with a dot on either side of it. */
function bassClef(pen: Pen, f: number): void {
  pen.circle(30, f, 5, { fill: INK, edge: false });
  pen.line(
    Array.from({ length: 24 }, (_, i) => {
      const angle = Math.PI + (i / 23) * 1.45 * Math.PI;
      return [42 + 14 * Math.cos(angle), f + 2 + 14 * Math.sin(angle)];
    }).flat(),
    { width: 3 },
  );
  pen.line([56, f + 6, 46, f + 28, 28, f + 40], { width: 3 });
  for (const dy of [-6, 6]) pen.circle(66, f + dy, 3, { fill: INK, edge: false });
}

/** Black keys lie after these white ones of an octave. */
const BLACK = [0, 1, 3, 4, 5];

const keyboard = figure({
  subject: 'music',
  width: 640,
  height: 180,
  fields: { octaves: number(1, 3, 2), marked: words('', 60) },
  draw(pen, { octaves, marked }) {
    const keys = octaves * 7 + 1;
    const width = 620 / keys;
    const notes = notesOf(marked);
    const isMarked = (step: number, raised: 0 | 1) =>
      notes.some((note) =>
        note.raised === -1
          ? note.step - 1 === step && raised === 1
          : note.step === step && note.raised === raised,
      );
    for (let i = 0; i < keys; i++) {
      pen.rect(10 + i * width, 10, width, 160, { fill: isMarked(i, 0) ? WARM : '#ffffff', width: 1.8 });
      pen.text(`${NAMES[i % 7]}${4 + Math.floor(i / 7)}`, 10 + (i + 0.5) * width, 154, {
        size: Math.min(16, width * 0.4),
      });
    }
    for (let i = 0; i < keys - 1; i++)
      if (BLACK.includes(i % 7))
        pen.rect(10 + (i + 0.68) * width, 10, width * 0.64, 98, { fill: isMarked(i, 1) ? '#b98a2c' : INK });
  },
});

export const MUSIC = { staff, keyboard };
