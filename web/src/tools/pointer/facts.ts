import type { Tool } from '../tool';
import { t } from '../../words';

export const pointer: Tool = {
  name: t('tools.pointer'),
  does: t('tools.pointWithABrightDot'),
  key: 'D',
  group: 'Point',
  needs: 'pointing',
  cursor: 'none',
  kept: {},
};
