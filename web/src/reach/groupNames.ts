import type { ToolGroup } from '../tools/tool';
import { t } from '../words';

/** What the groups of tools are called. */
export const GROUP_NAMES: Readonly<Record<ToolGroup, string>> = {
  Write: t('reach.write'),
  Place: t('reach.place'),
  Arrange: t('reach.arrange'),
  Point: t('reach.point'),
  Focus: t('reach.focus'),
  Measure: t('reach.measure'),
};
