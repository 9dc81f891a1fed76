import { Lasso } from 'lucide-react';
import { lazy } from 'react';
import { TOUCH_REACH } from '../toolWork';
import type { ToolWork } from '../toolWork';
import { SelectGesture } from './selectGesture';

export const select: ToolWork = {
  icon: <Lasso aria-hidden />,
  begin: (at, { desk, scale }) => new SelectGesture(desk, at, TOUCH_REACH / scale),
  Sheet: lazy(() => import('./Sheet')),
};
