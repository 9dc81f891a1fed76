import type { Tool } from '../tool';
import { t } from '../../words';

export const outline: Tool = {
  name: t('tools.freeSpotlight'),
  key: '7',
  group: 'Focus',
  needs: 'class',
  kept: {},
};
