import { pageIds, Person, write } from './person.mjs';

/** Points of each stroke. */
export const POINTS = 40;

/** Strokes as a class would leave them: small words all over the page. */
function strokes(page, author, count) {
  return Array.from({ length: count }, (_, n) => {
    const [x, y] = [20 + (n % 100) * 7.4, 20 + Math.floor(n / 100) * 21];
    const points = [];
    for (let i = 0; i < POINTS; i++) {
      points.push(+(x + i * 0.35).toFixed(2), +(y + 6 * Math.sin(i / 3 + n)).toFixed(2), 0.5, i * 8);
    }
    const style = { nature: 'pen', colour: '#0072b2', width: 2, opacity: 1 };
    const common = {
      id: `s${n}`,
      page,
      author,
      space: 'class',
      order: 'a0',
      locked: false,
      group: null,
      alt: null,
      createdAt: 0,
    };
    return { ...common, kind: 'stroke', style, points, pressure: false };
  });
}

/** Fills the lesson's log with so many strokes by the live connection, as a browser would. */
export async function fill(url, cookie, lesson, count) {
  const teacher = new Person(url, { cookie });
  const log = await teacher.open({ kind: 'lesson', id: lesson });
  const marks = strokes(pageIds(log)[0], log.actor.id, count);
  await write(log, marks);
  teacher.close();
  return marks;
}
