import type { Tool } from '../tool';
import { t } from '../../words';

export interface SelectKept {
  /** Whether what is moved meets others' edges, middles and gaps, and the ruling. */
  guides: boolean;
}

export const select: Tool<SelectKept> = {
  name: t('tools.select'),
  key: 'V',
  group: 'Arrange',
  needs: 'writing',
  cursor: 'default',
  kept: { guides: true },
};
