import { Crosshair } from 'lucide-react';
import type { ToolWork } from '../toolWork';
import { PointGesture } from './pointGesture';

export const pointer: ToolWork = {
  icon: <Crosshair aria-hidden />,
  begin: (at, { desk }) => new PointGesture(desk, at),
};
