import type { Tool } from '../tool';
import { t } from '../../words';

export const select: Tool = {
  name: t('tools.select'),
  key: 'V',
  group: 'Arrange',
  needs: 'writing',
  cursor: 'default',
  kept: {},
};
