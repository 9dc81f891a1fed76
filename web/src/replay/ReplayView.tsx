import type { Turn } from '@doodla/core/replay';
import { useMemo, useState } from 'react';
import type { RecordedWithStops } from '../api/replay';
import { nameChapter } from '../api/replay';
import type { PageDesk } from '../room/pageDesk';
import { useStore } from '../store/useStore';
import { t } from '../words';
import { PlayedView } from './PlayedView';
import { ReplayChoices } from './ReplayChoices';
import type { Wanted } from './useReplay';
import { useReplay, writersIn } from './useReplay';
import { useStops } from './useStops';

interface ReplayViewProps {
  desk: PageDesk;
  recorded: RecordedWithStops;
  page: string | undefined;
  onClose(): void;
}

/** What was done on a page or in the whole class, played from the log. */
export function ReplayView({ desk, recorded, page, onClose }: ReplayViewProps) {
  const { room } = desk;
  const [wanted, setWanted] = useState<Wanted>({ page, author: undefined, pauses: false });
  const player = useReplay(recorded, room, wanted);
  const stops = useStops(room, recorded.stops, player);
  const writers = useMemo(() => writersIn(recorded, room), [recorded, room]);
  const pages = useStore(desk.pages).map(({ id }, i) => ({ id, name: t('common.page', { number: i + 1 }) }));
  const name = async ({ id }: Turn, wish: string) => {
    if (id !== undefined && room.sitting !== undefined) await nameChapter(room.sitting, id, wish);
  };
  return (
    <PlayedView
      desk={desk}
      title={t('replay.title')}
      player={player}
      stops={stops}
      wanted={wanted}
      onNameChapter={desk.isTeacher ? name : undefined}
      onClose={onClose}
      choices={
        <ReplayChoices
          room={room}
          wanted={wanted}
          writers={writers}
          pages={pages}
          onChange={(set) => setWanted({ ...wanted, ...set })}
        />
      }
    />
  );
}
