import { useStore } from '@web/store/useStore';
import type { ReactNode } from 'react';
import { useState } from 'react';
import { say } from '../../words';
import type { Tab } from '../tab';
import { FocusThings } from './FocusThings';
import { FocusSheet } from './FocusSheet';
import type { Attention } from './attention';
import { Holder } from './Holder';
import type { HolderPlace, SheetName } from './holderState';
import { MarkList } from './MarkList';
import { Options } from './Options';
import { PictureSheet, PicturingView } from './PictureSheet';
import { SelectionFrame } from './SelectionFrame';
import { TypingBox } from './TypingBox';
import { WipeSheet } from './WipeSheet';

interface CompanionViewProps {
  tab: Tab;
  place: HolderPlace;
  attention: Attention;
  onClose(): void;
}

/** Everything that lies over the page beside the ink. */
export function CompanionView({ tab, place, attention, onClose }: CompanionViewProps) {
  const [sheet, setSheet] = useState<SheetName>();
  const { side, folded } = useStore(place.state);
  const toggle = (name: SheetName) => setSheet(sheet === name ? undefined : name);
  const done = () => setSheet(undefined);
  const sheets: Record<SheetName, () => ReactNode> = {
    options: () => <Options desk={tab.desk} />,
    focus: () => <FocusSheet tab={tab} attention={attention} onDone={done} />,
    picture: () => <PictureSheet tab={tab} onDone={done} />,
    list: () => <MarkList tab={tab} />,
    wipe: () => <WipeSheet tab={tab} onDone={done} />,
  };
  return (
    <>
      <FocusThings tab={tab} attention={attention} />
      <SelectionFrame tab={tab} />
      <TypingBox tab={tab} />
      <Holder tab={tab} place={place} sheet={sheet} onSheet={toggle} onClose={onClose} />
      {sheet && !folded && (
        <section
          aria-label={say('tools')}
          className="pointer-events-auto fixed top-12 flex max-h-[calc(100dvh-5rem)] w-72 max-w-[calc(100vw-1rem)] flex-col gap-3 overflow-y-auto rounded-2xl bg-board p-4 text-paper shadow-xl"
          style={{ [side]: 'max(8px, min(176px, calc(100vw - 296px)))' }}
        >
          {sheets[sheet]()}
          {/* In a narrow window it lies over the button that opened it. */}
          <button
            type="button"
            onClick={done}
            className="min-h-11 shrink-0 rounded-xl bg-board-light text-sm hover:bg-board-hover"
          >
            {say('done')}
          </button>
        </section>
      )}
      <PicturingView tab={tab} />
      <Notice tab={tab} />
    </>
  );
}

/** What could not be done, and what to do, until it is read. */
function Notice({ tab: { desk } }: { tab: Tab }) {
  const problem = useStore(desk.problem);
  if (problem === undefined) return null;
  return (
    <div
      role="alert"
      className="pointer-events-auto fixed start-1/2 bottom-6 flex max-w-[min(32rem,calc(100vw-2rem))] -translate-x-1/2 items-center gap-3 rounded-2xl bg-paper p-4 text-ink shadow-xl"
    >
      <p>{problem}</p>
      <button
        type="button"
        className="min-h-11 shrink-0 rounded-xl bg-board px-3 font-bold text-paper"
        onClick={() => desk.problem.set(undefined)}
      >
        {say('understood')}
      </button>
    </div>
  );
}
