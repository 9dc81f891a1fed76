import { LassoSelect } from 'lucide-react';
import { FocusGesture } from '../focusGesture';
import type { ToolWork } from '../toolWork';

export const outline: ToolWork = {
  icon: <LassoSelect aria-hidden />,
  begin: (at, { desk }) => new FocusGesture(desk, 'outline', at),
};
