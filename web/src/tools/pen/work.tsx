import { PenLine } from 'lucide-react';
import { lazy } from 'react';
import type { ToolWork } from '../toolWork';
import { guidedInk } from './guidedInk';
import { InkGesture } from './inkGesture';

export const pen: ToolWork = {
  icon: <PenLine aria-hidden />,
  begin(at, { desk, pressure, scale, penAt, onChange }) {
    const style = penAt(at, desk.penCase.get().pen);
    return guidedInk(desk, style, at, scale) ?? new InkGesture(desk, style, pressure, at, onChange);
  },
  Sheet: lazy(() => import('./Sheet')),
};
