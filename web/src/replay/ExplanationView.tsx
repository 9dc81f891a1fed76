import type { ExplanationChapter, ExplanationSettings, ExplanationStop } from '@doodla/core';
import { placeAt } from '@doodla/core/explain';
import type { Turn } from '@doodla/core/replay';
import { Volume2, VolumeX } from 'lucide-react';
import { useMemo, useRef, useState } from 'react';
import { putExplanation } from '../api/explanations';
import type { PageDesk } from '../room/pageDesk';
import { useStore } from '../store/useStore';
import { IconButton } from '../ui/IconButton';
import { t } from '../words';
import { logOf } from './bringBack';
import { PlayedView } from './PlayedView';
import { ReplayChoices } from './ReplayChoices';
import type { Explained } from './useExplained';
import { useExplanationStops } from './useExplanationStops';
import type { Wanted } from './useReplay';
import { useReplay, writersIn } from './useReplay';
import type { PlayedVoice } from './voice';

interface ExplanationViewProps {
  desk: PageDesk;
  explained: Explained;
  onClose(): void;
}

/** An explanation as it was recorded, with all that it is played by. */
export function ExplanationView({ desk, explained, onClose }: ExplanationViewProps) {
  const { room } = desk;
  const { explanation, recorded, played, noted, sound } = explained;
  const [wanted, setWanted] = useState<Wanted>({ page: undefined, author: undefined, pauses: true });
  const player = useReplay(recorded, room, wanted, explained);
  const keep = useKeeping(desk, explained);
  const keepStops = (stops: ExplanationStop[]) => keep({ stops });
  const stops = useExplanationStops(explanation, played, player, keepStops, desk.tellProblem);
  const writers = useMemo(() => writersIn(recorded, room), [recorded, room]);
  const beside = useMemo(
    () => ({
      at(time: number) {
        const place = placeAt(played, time);
        return place && noted.get(place.take)?.at(place.from);
      },
    }),
    [played, noted],
  );
  const nameChapter = async ({ place }: Turn, name: string) => {
    if (place)
      await keep({
        chapters: [...without(explanation.chapters, place), ...(name ? [{ ...place, name }] : [])],
      });
  };
  return (
    <PlayedView
      desk={desk}
      title={explanation.name}
      player={player}
      stops={stops}
      wanted={wanted}
      beside={beside}
      onNameChapter={desk.isTeacher ? nameChapter : undefined}
      onClose={onClose}
      choices={
        <>
          {writers.length > 1 && (
            <ReplayChoices
              room={room}
              wanted={wanted}
              writers={writers}
              pages={[]}
              onChange={(set) => setWanted({ ...wanted, ...set })}
            />
          )}
          {played.some(({ voice }) => voice) && <VoiceSwitch sound={sound} />}
        </>
      }
    />
  );
}

/** Keeps something of an explanation with all else that was said of it. */
function useKeeping({ room }: PageDesk, { explanation }: Explained) {
  const { name, parts, stops, chapters, finished } = explanation;
  const said = useRef<ExplanationSettings>({ name, parts, stops, chapters, finished });
  return async (set: Partial<ExplanationSettings>) => {
    const next = { ...said.current, ...set };
    await putExplanation(logOf(room), explanation.id, next);
    said.current = next;
  };
}

const without = (chapters: readonly ExplanationChapter[], place: { take: string; from: number }) =>
  chapters.filter(({ take, from }) => take !== place.take || from !== place.from);

function VoiceSwitch({ sound }: { sound: PlayedVoice }) {
  const isOff = useStore(sound.loudness) === 0;
  return (
    <IconButton
      label={isOff ? t('explain.voiceOn') : t('explain.voiceOff')}
      icon={isOff ? <VolumeX aria-hidden size={22} /> : <Volume2 aria-hidden size={22} />}
      tooltipSide="none"
      onClick={() => sound.loudness.set(isOff ? 1 : 0)}
    />
  );
}
