import { PaintBucket } from 'lucide-react';
import { lazy } from 'react';
import type { ToolWork } from '../toolWork';
import { PourGesture } from './pourGesture';

export const fill: ToolWork = {
  icon: <PaintBucket aria-hidden />,
  begin: (at, { desk }) => new PourGesture(desk, at),
  Sheet: lazy(() => import('./Sheet')),
};
