import { SquareDashed } from 'lucide-react';
import { PlaceGesture } from '../placeGesture';
import type { ToolWork } from '../toolWork';

export const patch: ToolWork = {
  icon: <SquareDashed aria-hidden />,
  begin(at, { desk }) {
    const common = desk.newMark();
    const style = { colour: desk.penCase.get().patchColour };
    return new PlaceGesture(desk, at, {
      tapSize: { width: 220, height: 60 },
      square: false,
      make: (box) => common && { ...common, kind: 'patch', style, ...box, rotation: 0 },
    });
  },
};
