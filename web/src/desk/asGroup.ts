import type { Mark, MarkBody } from '@doodla/core';
import { orderOnTop } from '@doodla/core';
import { nanoid } from 'nanoid';
import type { MarkCommon } from './desk';

/** Bodies as marks of one group, each above the one before. */
export function asGroup(common: MarkCommon, bodies: readonly MarkBody[]): Mark[] {
  const group = bodies.length > 1 ? nanoid() : null;
  let { order } = common;
  return bodies.map((body, i) => {
    if (i > 0) order = orderOnTop([order]);
    return { ...common, ...body, id: nanoid(), order, group };
  });
}
