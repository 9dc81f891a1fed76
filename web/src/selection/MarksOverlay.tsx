import { Suspense } from 'react';
import type { PageDesk } from '../room/pageDesk';
import type { Stage } from '../stage/stage';
import { lazyAfter, toolsHere } from '../ui/moments';
import { SelectionOverlay } from './SelectionOverlay';

const AnswerLayer = lazyAfter(toolsHere, () => import('../answering/AnswerLayer'));

/** What lies over the marks of a page: what answers, and what is selected. */
export default function MarksOverlay({ desk, stage }: { desk: PageDesk; stage: Stage }) {
  return (
    <>
      <Suspense>
        <AnswerLayer desk={desk} stage={stage} />
      </Suspense>
      <SelectionOverlay desk={desk} stage={stage} />
    </>
  );
}
