import type { ExplanationChapter, ExplanationSettings, ExplanationStop, Part } from '@doodla/core';
import type { PackedPage } from '@doodla/core/explain';
import { explained, holdsOf, placeAt, playedParts, stretchesOf } from '@doodla/core/explain';
import type { Turn } from '@doodla/core/replay';
import { Captions, Download, Scissors } from 'lucide-react';
import { useEffect, useMemo, useRef, useState } from 'react';
import { putExplanation } from '../api/explanations';
import type { FilmPage } from '../film/filmPlan';
import { filmPages, hiddenIn } from '../film/makeFilm';
import { makeSteps } from '../film/makeSteps';
import { makeText } from '../film/makeText';
import { logOf } from '../room/logOf';
import { chapterName } from '../replay/chapterName';
import { CaptionLine } from '../replay/CaptionLine';
import { PlayedView } from '../replay/PlayedView';
import { WriterChoice } from '../replay/ReplayChoices';
import type { Player } from '../replay/player';
import { PlayedPictures } from '../replay/playedPictures';
import { PlayedVoice } from '../replay/voice';
import type { Wanted } from '../replay/useReplay';
import { useReplay, writersIn } from '../replay/useReplay';
import { VoiceSwitch } from '../replay/VoiceSwitch';
import type { PageDesk } from '../room/pageDesk';
import { IconButton } from '../ui/IconButton';
import { t } from '../words';
import { CaptionEditor } from './CaptionEditor';
import { MendBar } from './MendBar';
import { TakeAlong } from './TakeAlong';
import { settle } from './settle';
import { studioOf } from './studio';
import { useCaptions } from './useCaptions';
import { useExplanationStops } from './useExplanationStops';
import type { Material } from './useMaterial';
import { useParts } from './useParts';

/** What is open under what plays. */
type Tool = 'mend' | 'captions' | 'take';

interface ExplanationViewProps {
  desk: PageDesk;
  material: Material;
  /** Reads all anew, since more was recorded. */
  onRenew(): void;
  onClose(): void;
  /** Closes all, since the page is wanted. */
  onLeave(): void;
}

/** An explanation as it was recorded or mended, with all that it is played by. */
export function ExplanationView({ desk, material, onRenew, onClose, onLeave }: ExplanationViewProps) {
  const { room } = desk;
  const { explanation } = material;
  const [wanted, setWanted] = useState<Wanted>({ page: undefined, author: undefined, pauses: true });
  const { keep, said } = useKeeping(desk, material);
  const tell = (error: Error) => desk.tellProblem(error.message);
  const parts = useParts(explanation, (next) => void keep({ parts: next }).catch(tell));
  const playing = usePlaying(material, parts.now, desk.tellProblem);
  const { recorded, played, sound } = playing;
  const player = useReplay(recorded, room, wanted, playing);
  const keepStops = (stops: ExplanationStop[]) => keep({ stops });
  const stops = useExplanationStops(explanation, played, player, keepStops, desk.tellProblem);
  const writers = useMemo(() => writersIn(recorded, room), [recorded, room]);
  const [open, setOpen] = useState<Tool>();
  const captions = useCaptions(explanation, played, player.replay.length, (next) =>
    keep({ captions: next }).catch(tell),
  );
  const [isRead, setRead] = useState(true);
  // What is being made there goes on while it is closed.
  const [isTaken, setTaken] = useState(false);
  const toggle = (what: Tool) => {
    if (what === 'take') setTaken(true);
    setOpen(open === what ? undefined : what);
  };
  const studio = desk.isTeacher ? studioOf(room) : undefined;
  const { lacksPictures } = material;
  useEffect(() => {
    if (lacksPictures) desk.tellProblem(t('explain.movingMissing'));
  }, [lacksPictures, desk]);
  const nameChapter = async ({ place }: Turn, name: string) => {
    if (!place) return;
    const others = without(explanation.chapters, place);
    await keep({ chapters: name ? [...others, { ...place, name }] : others });
  };
  const textSources = () => ({
    title: explanation.name,
    replay: player.replay,
    chapters: chaptersOf(player, desk),
    stops: stops.played,
    cues: captions.cues,
    shownAt: playing.at,
  });
  return (
    <PlayedView
      desk={desk}
      title={explanation.name}
      player={player}
      stops={stops}
      wanted={wanted}
      beside={playing}
      onNameChapter={desk.isTeacher ? nameChapter : undefined}
      onClose={onClose}
      choices={
        <>
          {writers.length > 1 && (
            <WriterChoice
              room={room}
              wanted={wanted}
              writers={writers}
              onChange={(set) => setWanted({ ...wanted, ...set })}
            />
          )}
          {played.some(({ voice }) => voice) && <VoiceSwitch sound={sound} />}
          {(studio || captions.cues.length > 0) && (
            <IconButton
              label={studio ? t('explain.captions') : t('explain.captionsOff')}
              icon={<Captions aria-hidden size={22} />}
              active={studio ? open === 'captions' : isRead}
              tooltipSide="none"
              onClick={() => (studio ? toggle('captions') : setRead(!isRead))}
            />
          )}
          {studio && (
            <IconButton
              label={t('explain.mend')}
              icon={<Scissors aria-hidden size={22} />}
              active={open === 'mend'}
              tooltipSide="none"
              onClick={() => toggle('mend')}
            />
          )}
          {desk.isTeacher && (
            <IconButton
              label={t('explain.takeAlong')}
              icon={<Download aria-hidden size={22} />}
              active={open === 'take'}
              tooltipSide="none"
              onClick={() => toggle('take')}
            />
          )}
        </>
      }
    >
      {isRead && <CaptionLine player={player} cues={captions.cues} />}
      {open === 'captions' && (
        <CaptionEditor
          player={player}
          captions={captions}
          name={explanation.name}
          onProblem={desk.tellProblem}
        />
      )}
      {isTaken && (
        <div hidden={open !== 'take'}>
          <TakeAlong
            desk={desk}
            id={explanation.id}
            title={explanation.name}
            isHeard={played.some(({ voice }) => voice)}
            hasFace={material.videos.face.size > 0}
            hasCaptions={captions.cues.length > 0}
            hasStops={stops.played.length > 0}
            plan={async ({ lines, isCaptioned, hasFace }) => ({
              ...planOf(hasFace ? material : withoutFace(material), playing, desk),
              pages: await filmPages(desk, player.replay),
              chapters: chaptersOf(player, desk),
              holds: holdsOf(stops.played),
              cues: captions.cues,
              lines,
              isCaptioned,
            })}
            pack={async () => ({
              ...planOf(material, playing, desk),
              language: document.documentElement.lang,
              pages: packedPages(await filmPages(desk, player.replay)),
              chapters: chaptersOf(player, desk),
              stops: stops.played.map(({ id, time, text, seconds }) => ({ id, time, text, seconds })),
              cues: captions.cues,
              colourOf: (author) => room.personOf(author)?.colour,
            })}
            text={(options) => makeText(desk, textSources(), options)}
            steps={(link, options) => makeSteps(desk, { ...textSources(), link }, options)}
          />
        </div>
      )}
      {open === 'mend' && studio && (
        <MendBar
          desk={desk}
          studio={studio}
          material={material}
          parts={parts}
          player={player}
          sound={sound}
          onSettle={(onProgress) => settle(logOf(room), material, said(), played, onProgress)}
          onRenew={onRenew}
          onLeave={onLeave}
        />
      )}
    </PlayedView>
  );
}

/** What plays now: its log, its parts, what was shown beside the pages, and the voice. */
function usePlaying(material: Material, parts: readonly Part[], tell: (sentence: string) => void) {
  return useMemo(() => {
    const { explanation, shown, voices, films } = material;
    const played = playedParts({ takes: explanation.takes, parts: [...parts] });
    return {
      played,
      recorded: explained(material.recorded, explanation, material.noted),
      parts: stretchesOf(played),
      sound: new PlayedVoice(played, voices, shown, () => tell(t('explain.noSound'))),
      live: new PlayedPictures(played, films.video),
      face: new PlayedPictures(played, films.face),
      at(time: number) {
        const place = placeAt(played, time);
        return place && shown.get(place.take)?.at(place.from);
      },
    };
  }, [material, parts, tell]);
}

/** What a film of it is made from, all but what depends on what is wanted. */
function planOf(
  { explanation, noted, sounds, videos }: Material,
  { recorded, played }: Pick<ReturnType<typeof usePlaying>, 'recorded' | 'played'>,
  desk: PageDesk,
) {
  const hidden = hiddenIn(recorded, desk);
  return { title: explanation.name, recorded, hidden, played, noted, sounds, videos };
}

function withoutFace({ videos, ...material }: Material): Material {
  return { ...material, videos: { ...videos, face: new Map() } };
}

function packedPages(pages: ReadonlyMap<string, FilmPage>): PackedPage[] {
  return [...pages.values()].map(({ bounds, ...page }) => ({
    ...page,
    bounds: bounds.map((rect) => rect ?? null),
  }));
}

function chaptersOf({ replay }: Player, desk: PageDesk) {
  const times = replay.turnTimes();
  return replay.turns.map((turn, i) => ({
    // A film begins with its first chapter.
    at: i === 0 ? 0 : times[i]!,
    name: chapterName(turn, desk.pages.get()),
  }));
}

/** Keeps something of an explanation with all else that was said of it. */
function useKeeping({ room }: PageDesk, { explanation }: Material) {
  const { name, parts, stops, chapters, captions, finished } = explanation;
  const said = useRef<ExplanationSettings>({ name, parts, stops, chapters, captions, finished });
  return {
    said: () => said.current,
    async keep(set: Partial<ExplanationSettings>): Promise<void> {
      const next = { ...said.current, ...set };
      await putExplanation(logOf(room), explanation.id, next);
      said.current = next;
    },
  };
}

const without = (chapters: readonly ExplanationChapter[], place: { take: string; from: number }) =>
  chapters.filter(({ take, from }) => take !== place.take || from !== place.from);
