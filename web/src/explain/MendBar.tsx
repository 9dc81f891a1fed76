import { lengthOf, cutOut, partsWithin, shortened } from '@doodla/core/explain';
import type { Span } from '@doodla/core/replay';
import { Redo2, Undo2 } from 'lucide-react';
import { useEffect, useState } from 'react';
import type { Player } from '../replay/player';
import { playTime } from '../replay/playTime';
import type { PageDesk } from '../room/pageDesk';
import { useStore } from '../store/useStore';
import { Button } from '../ui/Button';
import { IconButton } from '../ui/IconButton';
import { t } from '../words';
import { recordAnew } from './recordAnew';
import { SettleSheet } from './SettleSheet';
import { silentSpans } from './silences';
import { SpokenOver } from './SpokenOver';
import type { Studio } from './studio';
import type { Material } from './useMaterial';
import type { Parts } from './useParts';
import type { PlayedVoice } from '../replay/voice';

interface MendBarProps {
  desk: PageDesk;
  studio: Studio;
  material: Material;
  parts: Parts;
  player: Player;
  sound: PlayedVoice;
  /** Makes what plays all that there is. */
  onSettle(onProgress: (share: number) => void): Promise<void>;
  onRenew(): void;
  onLeave(): void;
}

/** Longest silence that is left, milliseconds. */
const LONGEST_SILENCE = 1000;

/** Mending: a stretch of the time, and what is done with it; each step can be undone, and the recording itself stays. */
export function MendBar(props: MendBarProps) {
  const { desk, studio, material, parts, player, sound, onSettle, onRenew, onLeave } = props;
  const { time } = useStore(player.state);
  const { length } = player.replay;
  const [span, setSpan] = useState<Span>({ from: 0, to: length });
  const [speaking, setSpeaking] = useState(false);
  const [settling, setSettling] = useState(false);
  const [busy, setBusy] = useState(false);
  const whole = span.from <= 0 && span.to >= length;
  useMarked(player, whole ? undefined : span);
  const tell = (error: Error) => desk.tellProblem(error.message);
  const change = (next: typeof parts.now) => {
    player.pause();
    parts.change([...next]);
    setSpan({ from: 0, to: lengthOf(next) });
  };
  const shorten = async () => {
    setBusy(true);
    try {
      const { played } = sound;
      const silences = await silentSpans(played, material, player.replay, LONGEST_SILENCE);
      const next = shortened(parts.now, silences, LONGEST_SILENCE);
      if (lengthOf(next) === lengthOf(parts.now)) desk.room.tellNotice(t('explain.noSilences'));
      else change(next);
    } catch {
      desk.tellProblem(t('explain.noSilencesFound'));
    }
    setBusy(false);
  };
  const anew = (what: 'all' | 'drawing') => {
    if (!desk.mayWrite) return desk.tellProblem(t('server.ended-history'));
    player.pause();
    const from = what === 'all' ? time : span.from;
    const place = { parts: [...parts.now], span: what === 'all' ? { from, to: Infinity } : span, what };
    recordAnew(desk, studio, material, place, { replay: player.replay, sound }).then(onLeave, tell);
  };
  if (settling)
    return (
      <SettleSheet
        onSettle={onSettle}
        onDone={onRenew}
        onCancel={() => setSettling(false)}
        onProblem={tell}
      />
    );
  if (speaking)
    return (
      <SpokenOver
        studio={studio}
        material={material}
        player={player}
        sound={sound}
        place={{ parts: [...parts.now], span, what: 'voice' }}
        onDone={onRenew}
        onCancel={() => setSpeaking(false)}
        onProblem={desk.tellProblem}
      />
    );
  return (
    <div
      role="toolbar"
      aria-label={t('explain.mend')}
      className="flex flex-wrap items-center gap-2 rounded-2xl bg-board-light p-2"
    >
      <Button look="onBoard" onClick={() => setSpan({ from: time, to: Math.max(time, span.to) })}>
        {t('explain.fromHere')}
      </Button>
      <Button look="onBoard" onClick={() => setSpan({ from: Math.min(time, span.from), to: time })}>
        {t('explain.toHere')}
      </Button>
      <p role="status" className="px-1 tabular-nums">
        {whole
          ? t('explain.allOfIt')
          : t('explain.stretch', { from: inTenths(span.from), to: inTenths(span.to) })}
      </p>
      <Button look="onBoard" disabled={whole} onClick={() => change(partsWithin(parts.now, span))}>
        {t('explain.keepOnly')}
      </Button>
      <Button look="onBoard" disabled={whole} onClick={() => change(cutOut(parts.now, span))}>
        {t('explain.cutOut')}
      </Button>
      <Button look="onBoard" disabled={busy} onClick={() => void shorten()}>
        {t('explain.shortenSilences')}
      </Button>
      <Button look="onBoard" onClick={() => setSpeaking(true)}>
        {t('explain.speakOver')}
      </Button>
      <Button look="onBoard" onClick={() => anew('drawing')}>
        {t('explain.drawAnew')}
      </Button>
      <Button look="onBoard" onClick={() => anew('all')}>
        {t('explain.recordOnFrom')}
      </Button>
      <span className="grow" />
      <IconButton
        label={t('common.undo')}
        icon={<Undo2 aria-hidden size={20} />}
        disabled={!parts.canUndo}
        onClick={() => parts.undo()}
      />
      <IconButton
        label={t('common.redo')}
        icon={<Redo2 aria-hidden size={20} />}
        disabled={!parts.canRedo}
        onClick={() => parts.redo()}
      />
      <Button look="onBoard" disabled={!parts.isMended} onClick={() => parts.reset()}>
        {t('explain.asRecorded')}
      </Button>
      <Button look="onBoard" disabled={!parts.isMended} onClick={() => setSettling(true)}>
        {t('explain.dropRest')}
      </Button>
    </div>
  );
}

/** Such as *1:02.5*. */
const inTenths = (time: number): string =>
  `${playTime(Math.floor(time / 1000) * 1000)}.${Math.floor((time % 1000) / 100)}`;

/** Marks a stretch over the time as long as it is chosen. */
function useMarked(player: Player, span: Span | undefined): void {
  useEffect(() => {
    player.marked.set(span);
    return () => player.marked.set(undefined);
  }, [player, span]);
}
