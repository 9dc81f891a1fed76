import { useEffect, useRef, useState } from 'react';
import type { Player } from '../replay/player';
import { useStore } from '../store/useStore';
import { Button } from '../ui/Button';
import { t } from '../words';
import { LevelBar } from './LevelBar';
import type { MendPlace } from './mended';
import { Microphone } from '../media/microphone';
import type { Recorder } from './recorder';
import type { Studio } from './studio';
import type { Material } from './useMaterial';
import type { PlayedVoice } from '../replay/voice';

interface SpokenOverProps {
  studio: Studio;
  material: Material;
  player: Player;
  sound: PlayedVoice;
  place: MendPlace;
  /** Told when it is over, and something may have been recorded. */
  onDone(): void;
  /** Told when nothing is to be recorded. */
  onCancel(): void;
  onProblem(sentence: string): void;
}

/** Speaking anew over a stretch while it plays without its voice. */
export function SpokenOver({
  studio,
  material,
  player,
  sound,
  place,
  onDone,
  onCancel,
  onProblem,
}: SpokenOverProps) {
  const [microphone, setMicrophone] = useState<Microphone>();
  const [recorder, setRecorder] = useState<Recorder>();
  // Once it records, the recorder lets go of it.
  const isUsed = useRef(false);
  useEffect(() => {
    let gone = false;
    let opened: Microphone | undefined;
    Microphone.open().then(
      (one) => {
        if (gone) one.close();
        else setMicrophone((opened = one));
      },
      (error: Error) => {
        onProblem(error.message);
        onCancel();
      },
    );
    return () => {
      gone = true;
      if (!isUsed.current) opened?.close();
    };
    // Opened once, when this is shown.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, []);
  const begin = async () => {
    isUsed.current = true;
    const loudness = sound.loudness.get();
    const made = await studio.mend(material.explanation, place, {
      microphone,
      pointing: false,
      focus: false,
    });
    setRecorder(made);
    sound.loudness.set(0);
    await made.isRecording();
    await player.playSpan(place.span);
    sound.loudness.set(loudness);
    await made.finish();
    await studio.sent();
    onDone();
  };
  return (
    <div className="flex flex-wrap items-center gap-3 rounded-2xl bg-board-light p-3">
      <p role="status">{recorder ? t('explain.speakNow') : t('explain.speakOverHint')}</p>
      {recorder && <Count recorder={recorder} />}
      {microphone && <LevelBar microphone={microphone} />}
      <span className="grow" />
      {recorder ? (
        <Button onClick={() => player.pause()}>{t('explain.finish')}</Button>
      ) : (
        <>
          <Button look="onBoard" onClick={onCancel}>
            {t('common.cancel')}
          </Button>
          <Button
            disabled={!microphone}
            onClick={() => void begin().catch((error: Error) => onProblem(error.message))}
          >
            {t('explain.record')}
          </Button>
        </>
      )}
    </div>
  );
}

function Count({ recorder }: { recorder: Recorder }) {
  const phase = useStore(recorder.phase);
  return phase.is === 'counting' && <span className="text-4xl font-bold">{phase.left}</span>;
}
