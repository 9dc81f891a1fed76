import { Store } from '@doodla/core/client';
import { useEffect, useState } from 'react';
import type { PageDesk } from '../room/pageDesk';
import { LeftVideo } from '../sharing/LeftVideo';
import { useStore } from '../store/useStore';
import { BrokenOffNotice } from './BrokenOffNotice';
import { RecordingPanel } from './RecordingPanel';
import type { Recorder } from './recorder';
import type { BrokenOff } from './studio';
import { Studio } from './studio';

const NONE = new Store<Recorder | undefined>(undefined);
const NOTHING = new Store<BrokenOff | undefined>(undefined);

/** What belongs to recording over an opened lesson or class. */
export default function RecordingDesk({ desk }: { desk: PageDesk }) {
  const studio = useStudio(desk);
  const recorder = useStore(studio?.recorder ?? NONE);
  const broken = useStore(studio?.brokenOff ?? NOTHING);
  if (!studio) return null;
  if (recorder) return <RecordingPanel recorder={recorder} desk={desk} />;
  return broken ? <BrokenOffNotice studio={studio} broken={broken} desk={desk} /> : <LeftVideo desk={desk} />;
}

function useStudio(desk: PageDesk): Studio | undefined {
  const [studio, setStudio] = useState<Studio>();
  useEffect(() => {
    let opened: Studio | undefined;
    let gone = false;
    Studio.open(desk).then(
      (one) => {
        opened = one;
        if (gone) one.close();
        else setStudio(one);
      },
      // Nobody is known to work here, as in a class that is gone; then there is nothing to record.
      () => undefined,
    );
    return () => {
      gone = true;
      opened?.close();
    };
  }, [desk]);
  return studio;
}
