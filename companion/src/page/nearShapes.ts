import { evenOut, readShapes, surelyShape } from '@doodla/core/neaten';
import type { Asked } from '@web/desk/shapesLink';

const later =
  <Order extends unknown[], Answer>(work: (...order: Order) => Answer) =>
  (...order: Order): Promise<Answer> =>
    Promise.resolve(work(...order));

const asked: Asked = {
  readShapes: later(readShapes),
  surelyShape: later(surelyShape),
  evenOut: later(evenOut),
};

/** Reads shapes here: a page lets no worker of an extension begin. One drawing takes some milliseconds (`bench:neaten`). */
export function neatWorker(): Asked {
  return asked;
}
