import { choice, figure } from '../figure.js';
import type { Pen } from '../pen.js';

/** Length and width of a pitch in metres, its lines in and at its edges. */
interface Pitch {
  length: number;
  width: number;
  /** Draws what lies within, in metres from the upper left corner. */
  lines(pen: Pen, metre: number, at: (x: number, y: number) => [number, number]): void;
}

const LOOK = { width: 2, colour: '#ffffff' };

/** Both halves of a pitch, the right one the mirror of the left. */
function both(length: number, draw: (x: (metres: number) => number, isRight: boolean) => void): void {
  draw((metres) => metres, false);
  draw((metres) => length - metres, true);
}

/**
 * In metres, from memory of the rules: football 105 × 68 (FIFA, "Laws of the Game", law 1, international matches), handball 40 × 20
 * (IHF rule 1), basketball 28 × 15 (FIBA rule 2), volleyball 18 × 9 (FIVB rule 1), tennis 23.77 × 10.97 (ITF rule 1), hockey 91.40 ×
 * 55.00 (FIH rule 1), badminton 13.40 × 6.10 (BWF law 1).
 */
export const PITCHES: Readonly<Record<string, Pitch>> = {
  football: {
    length: 105,
    width: 68,
    lines(pen, metre, at) {
      pen.line([...at(52.5, 0), ...at(52.5, 68)], LOOK);
      pen.circle(...at(52.5, 34), 9.15 * metre, LOOK);
      both(105, (x, isRight) => {
        for (const [deep, half] of [
          [16.5, 20.16],
          [5.5, 9.16],
        ] as const)
          pen.line(
            [
              ...at(x(0), 34 - half),
              ...at(x(deep), 34 - half),
              ...at(x(deep), 34 + half),
              ...at(x(0), 34 + half),
            ],
            LOOK,
          );
        pen.circle(...at(x(11), 34), 3, { fill: LOOK.colour, edge: false });
        // The part of a circle round the penalty mark that lies outside the area.
        const half = (Math.acos(5.5 / 9.15) * 180) / Math.PI;
        const middle = isRight ? 180 : 0;
        pen.arc(...at(x(11), 34), 9.15 * metre, middle - half, middle + half, LOOK);
        pen.line(
          [
            ...at(x(0), 34 - 3.66),
            ...at(x(-1.5), 34 - 3.66),
            ...at(x(-1.5), 34 + 3.66),
            ...at(x(0), 34 + 3.66),
          ],
          LOOK,
        );
      });
    },
  },
  handball: {
    length: 40,
    width: 20,
    lines(pen, metre, at) {
      pen.line([...at(20, 0), ...at(20, 20)], LOOK);
      both(40, (x, isRight) => {
        for (const [radius, dash] of [
          [6, 0],
          [9, 8],
        ] as const) {
          const turn = (angle: number) => (isRight ? 180 - angle : angle);
          // The outer line ends at the side lines.
          const edge = radius === 9 ? (Math.acos(8.5 / 9) * 180) / Math.PI : 0;
          pen.arc(...at(x(0), 8.5), radius * metre, turn(-90 + edge), turn(0), { ...LOOK, dash });
          pen.line([...at(x(radius), 8.5), ...at(x(radius), 11.5)], { ...LOOK, dash });
          pen.arc(...at(x(0), 11.5), radius * metre, turn(0), turn(90 - edge), { ...LOOK, dash });
        }
        pen.line([...at(x(7), 9.5), ...at(x(7), 10.5)], LOOK);
        pen.line([...at(x(0), 8.5), ...at(x(-1), 8.5), ...at(x(-1), 11.5), ...at(x(0), 11.5)], LOOK);
      });
    },
  },
  basketball: {
    length: 28,
    width: 15,
    lines(pen, metre, at) {
      pen.line([...at(14, 0), ...at(14, 15)], LOOK);
      pen.circle(...at(14, 7.5), 1.8 * metre, LOOK);
      both(28, (x, isRight) => {
        const turn = (angle: number) => (isRight ? 180 - angle : angle);
        pen.line([...at(x(0), 5.05), ...at(x(5.8), 5.05), ...at(x(5.8), 9.95), ...at(x(0), 9.95)], LOOK);
        pen.arc(...at(x(5.8), 7.5), 1.8 * metre, turn(-90), turn(90), LOOK);
        const half = (Math.asin(6.6 / 6.75) * 180) / Math.PI;
        pen.arc(...at(x(1.575), 7.5), 6.75 * metre, turn(-half), turn(half), LOOK);
        const end = 1.575 + Math.sqrt(6.75 ** 2 - 6.6 ** 2);
        for (const y of [0.9, 14.1]) pen.line([...at(x(0), y), ...at(x(end), y)], LOOK);
        pen.circle(...at(x(1.575), 7.5), 0.225 * metre, LOOK);
      });
    },
  },
  volleyball: {
    length: 18,
    width: 9,
    lines(pen, _metre, at) {
      pen.line([...at(9, -0.5), ...at(9, 9.5)], { ...LOOK, width: 4 });
      for (const x of [6, 12]) pen.line([...at(x, 0), ...at(x, 9)], LOOK);
    },
  },
  tennis: {
    length: 23.77,
    width: 10.97,
    lines(pen, _metre, at) {
      pen.line([...at(11.885, -0.6), ...at(11.885, 11.57)], { ...LOOK, width: 4 });
      for (const y of [1.37, 9.6]) pen.line([...at(0, y), ...at(23.77, y)], LOOK);
      for (const x of [11.885 - 6.4, 11.885 + 6.4]) pen.line([...at(x, 1.37), ...at(x, 9.6)], LOOK);
      pen.line([...at(11.885 - 6.4, 5.485), ...at(11.885 + 6.4, 5.485)], LOOK);
    },
  },
  hockey: {
    length: 91.4,
    width: 55,
    lines(pen, metre, at) {
      for (const x of [22.9, 45.7, 68.5]) pen.line([...at(x, 0), ...at(x, 55)], LOOK);
      both(91.4, (x, isRight) => {
        const turn = (angle: number) => (isRight ? 180 - angle : angle);
        pen.arc(...at(x(0), 25.67), 14.63 * metre, turn(-90), turn(0), LOOK);
        pen.line([...at(x(14.63), 25.67), ...at(x(14.63), 29.33)], LOOK);
        pen.arc(...at(x(0), 29.33), 14.63 * metre, turn(0), turn(90), LOOK);
        pen.circle(...at(x(6.475), 27.5), 3, { fill: LOOK.colour, edge: false });
      });
    },
  },
  badminton: {
    length: 13.4,
    width: 6.1,
    lines(pen, _metre, at) {
      pen.line([...at(6.7, -0.3), ...at(6.7, 6.4)], { ...LOOK, width: 4 });
      for (const y of [0.46, 5.64]) pen.line([...at(0, y), ...at(13.4, y)], LOOK);
      both(13.4, (x) => {
        pen.line([...at(x(0.76), 0), ...at(x(0.76), 6.1)], LOOK);
        pen.line([...at(x(4.72), 0), ...at(x(4.72), 6.1)], LOOK);
        pen.line([...at(x(0), 3.05), ...at(x(4.72), 3.05)], LOOK);
      });
    },
  },
};

const GROUND = '#2f6f4e';

const pitch = figure({
  subject: 'sports',
  width: 720,
  height: 480,
  fields: {
    sport: choice(['football', 'handball', 'basketball', 'volleyball', 'tennis', 'hockey', 'badminton']),
  },
  draw(pen, { sport }) {
    const { length, width, lines } = PITCHES[sport]!;
    const metre = Math.min(650 / length, 420 / width);
    const [left, top] = [(720 - length * metre) / 2, (480 - width * metre) / 2];
    const at = (x: number, y: number): [number, number] => [left + x * metre, top + y * metre];
    pen.rect(0, 0, 720, 480, { fill: GROUND, edge: false });
    pen.rect(left, top, length * metre, width * metre, LOOK);
    lines(pen, metre, at);
  },
});

export const SPORTS = { pitch };
