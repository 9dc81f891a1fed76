/**
 * Mark colours to start from: the eight of Okabe and Ito, "Color Universal Design" (2008), which
 * stay apart for colour-blind viewers, and white.
 */
export const PALETTE = [
  { name: 'black', hex: '#000000' },
  { name: 'blue', hex: '#0072b2' },
  { name: 'vermilion', hex: '#d55e00' },
  { name: 'green', hex: '#009e73' },
  { name: 'orange', hex: '#e69f00' },
  { name: 'sky', hex: '#56b4e9' },
  { name: 'purple', hex: '#cc79a7' },
  { name: 'yellow', hex: '#f0e442' },
  { name: 'white', hex: '#ffffff' },
] as const;

/**
 * Colours of students: as many as stay apart for colour-blind viewers (CIEDE2000 at least 12 with each kind of
 * dichromacy) and are seen on paper (contrast with white at least 3; WCAG 2.2, 1.4.11). The first four are of
 * Okabe and Ito's set. None is the teacher's black.
 */
export const STUDENT_COLOURS = [
  '#0072b2',
  '#d55e00',
  '#009e73',
  '#cc79a7',
  '#7f1000',
  '#0d4c4b',
  '#805945',
  '#4800ad',
] as const;

/** Dashes round the name of a student, as in SVG `stroke-dasharray`; they tell those of one colour apart. */
export const NAME_DASHES = ['', '6 3', '2 2', '10 3 2 3', '1 4', '14 4', '6 2 2 2 2 2', '4 6'] as const;

/** The look of whoever has the n-th seat of a class (n from 0): 64 differ. */
export function seatLook(n: number): { colour: string; dash: number } {
  const { length } = STUDENT_COLOURS;
  return { colour: STUDENT_COLOURS[n % length]!, dash: Math.floor(n / length) % NAME_DASHES.length };
}

/** Up to two letters that stand for a name: those that its first and last word begin with. */
export function initialsOf(name: string): string {
  const words = name.trim().split(/\s+/).filter(Boolean);
  const first = words[0] ?? '';
  const last = words.length > 1 ? words.at(-1)! : '';
  return [first, last].map((word) => [...word][0]?.toLocaleUpperCase() ?? '').join('');
}
