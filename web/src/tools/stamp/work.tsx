import { Stamp } from 'lucide-react';
import { lazy } from 'react';
import { PlaceGesture } from '../placeGesture';
import type { ToolWork } from '../toolWork';
import { nextNumber } from './nextNumber';
import { OwnStampGesture } from './ownStampGesture';

export const stamp: ToolWork = {
  icon: <Stamp aria-hidden />,
  begin(at, { desk }) {
    const { stamp: name, stampColour, ownStamp } = desk.penCase.get();
    if (ownStamp !== null) return new OwnStampGesture(desk, at);
    const common = desk.newMark();
    const label = name === 'number' ? String(nextNumber(desk)) : '';
    const style = { colour: stampColour };
    return new PlaceGesture(desk, at, {
      tapSize: { width: 44, height: 44 },
      square: true,
      make: (box) =>
        common && { ...common, kind: 'stamp', stamp: name, label, style, ...box, rotation: 0, flip: false },
    });
  },
  Sheet: lazy(() => import('./Sheet')),
};
