import { PenLine } from 'lucide-react';
import { lazy } from 'react';
import type { ToolWork } from '../toolWork';
import { InkGesture } from './inkGesture';

export const pen: ToolWork = {
  icon: <PenLine aria-hidden />,
  begin: (at, { desk, pressure, penAt, onChange }) =>
    new InkGesture(desk, penAt(at, desk.penCase.get().pen), pressure, at, onChange),
  Sheet: lazy(() => import('./Sheet')),
};
