import { Wind } from 'lucide-react';
import type { ToolWork } from '../toolWork';
import { WispGesture } from './wispGesture';

export const wisp: ToolWork = {
  icon: <Wind aria-hidden />,
  begin: (at, { desk }) => new WispGesture(desk, at),
};
