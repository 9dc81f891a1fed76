import { Type } from 'lucide-react';
import { lazy } from 'react';
import type { ToolWork } from '../toolWork';
import { TextGesture } from './textGesture';

export const text: ToolWork = {
  icon: <Type aria-hidden />,
  begin: (at, { desk }) => new TextGesture(desk, at),
  Sheet: lazy(() => import('./Sheet')),
};
