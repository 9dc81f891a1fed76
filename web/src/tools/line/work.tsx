import { Spline } from 'lucide-react';
import { lazy } from 'react';
import { TOUCH_REACH } from '../toolWork';
import type { ToolWork } from '../toolWork';
import { CornerGesture } from './cornerGesture';
import { LINE_TYPES } from './facts';
import { LineGesture } from './lineGesture';

export const line: ToolWork = {
  icon: <Spline aria-hidden />,
  begin(at, { desk, scale }) {
    const Drawing = LINE_TYPES[desk.penCase.get().line].corners ? CornerGesture : LineGesture;
    return new Drawing(desk, at, TOUCH_REACH / scale);
  },
  Sheet: lazy(() => import('./Sheet')),
};
