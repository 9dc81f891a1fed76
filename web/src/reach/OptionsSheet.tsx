import { Suspense } from 'react';
import type { PageDesk } from '../room/pageDesk';
import { useStore } from '../store/useStore';
import { WORK } from '../tools/work';
import { ColourChoice } from '../ui/ColourChoice';

/** Everything that can be chosen for the tool in hand. */
export default function OptionsSheet({ desk }: { desk: PageDesk }) {
  const { penCase } = desk;
  const { tool } = useStore(penCase);
  const { Sheet } = WORK[tool];
  return (
    <div className="flex flex-col gap-3">
      {penCase.fixedColour === undefined && penCase.colour !== undefined && (
        <ColourChoice
          colour={penCase.colour}
          picking={desk.picking}
          onChange={(colour) => penCase.setColour(colour)}
        />
      )}
      <Suspense>{Sheet && <Sheet desk={desk} />}</Suspense>
    </div>
  );
}
