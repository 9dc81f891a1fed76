import { Expand } from 'lucide-react';
import { FocusGesture } from '../focusGesture';
import type { ToolWork } from '../toolWork';

export const enlarge: ToolWork = {
  icon: <Expand aria-hidden />,
  begin: (at, { desk }) => new FocusGesture(desk, 'enlarge', at),
};
