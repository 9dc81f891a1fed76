import { Shapes } from 'lucide-react';
import { lazy } from 'react';
import { PlaceGesture } from '../placeGesture';
import type { ToolWork } from '../toolWork';

export const shape: ToolWork = {
  icon: <Shapes aria-hidden />,
  begin(at, { desk }) {
    const { form, sides, outline: style } = desk.penCase.get();
    const common = desk.newMark();
    return new PlaceGesture(desk, at, {
      tapSize: { width: 160, height: 110 },
      square: false,
      make: (box) =>
        common && { ...common, kind: 'shape', form, sides, style, ...box, rotation: 0, flip: false },
    });
  },
  Sheet: lazy(() => import('./Sheet')),
};
