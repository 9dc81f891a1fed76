import type { PathMark } from '@doodla/core';
import type { Outlined } from '../shape/facts';
import { OUTLINED } from '../shape/facts';
import type { Tool } from '../tool';
import { t } from '../../words';

/** What the line tool draws: `corners` by clicking, the others by dragging. */
export const LINE_TYPES = {
  line: { course: 'straight', heads: 'none', corners: false, closed: false },
  arrow: { course: 'straight', heads: 'end', corners: false, closed: false },
  doubleArrow: { course: 'straight', heads: 'both', corners: false, closed: false },
  elbow: { course: 'elbow', heads: 'end', corners: false, closed: false },
  curve: { course: 'quadratic', heads: 'none', corners: false, closed: false },
  wave: { course: 'cubic', heads: 'none', corners: false, closed: false },
  polyline: { course: 'straight', heads: 'none', corners: true, closed: false },
  polygon: { course: 'straight', heads: 'none', corners: true, closed: true },
} as const satisfies Record<string, Pick<PathMark, 'course' | 'heads' | 'closed'> & { corners: boolean }>;
export type LineType = keyof typeof LINE_TYPES;

export interface LineKept extends Outlined {
  line: LineType;
  /** Whether lines are drawn to points and directions that are there. */
  snaps: boolean;
}

export const line: Tool<LineKept> = {
  ...OUTLINED,
  name: t('common.line'),
  key: 'L',
  group: 'Place',
  needs: 'writing',
  least: 'everything',
  kept: { ...OUTLINED.kept, line: 'line', snaps: true },
};
