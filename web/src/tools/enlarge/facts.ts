import type { Tool } from '../tool';
import { t } from '../../words';

export const enlarge: Tool = {
  name: t('tools.enlarge'),
  does: t('tools.fillTheScreenWithA'),
  key: 'Z',
  group: 'Focus',
  needs: 'class',
  kept: {},
};
