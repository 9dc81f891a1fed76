import { Eraser } from 'lucide-react';
import { lazy } from 'react';
import type { ToolWork } from '../toolWork';
import { EraseGesture } from './eraseGesture';
import { RubGesture } from './rubGesture';

export const eraser: ToolWork = {
  icon: <Eraser aria-hidden />,
  begin(at, { desk, scale }) {
    const { eraser: takes, eraserRadius } = desk.penCase.get();
    const Taking = takes === 'rubber' ? RubGesture : EraseGesture;
    return new Taking(desk, eraserRadius / scale, at);
  },
  Sheet: lazy(() => import('./Sheet')),
};
