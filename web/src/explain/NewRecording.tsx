import { CircleDot } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { Button } from '../ui/Button';
import { Problem } from '../ui/Problem';
import { SelectField } from '../ui/SelectField';
import { TextField } from '../ui/TextField';
import { Tick } from '../ui/Tick';
import { t } from '../words';
import { dateAndTime } from '../words/dates';
import { FaceView } from './FaceView';
import { LevelBar } from './LevelBar';
import { Microphone } from '../media/microphone';
import { roomText, useRoomLeft } from './roomLeft';
import type { Studio } from './studio';
import { useFaceCamera } from './useFaceCamera';

interface NewRecordingProps {
  studio: Studio;
  /** Bytes that the server has room for, once that is known. */
  room: number | undefined;
  /** Whether a class sees its light. */
  inClass: boolean;
  onBegun(): void;
}

const NO_VOICE = 'none';

/** What is recorded and by which microphone, before it begins. */
export function NewRecording({ studio, room, inClass, onBegun }: NewRecordingProps) {
  const [name, setName] = useState(() => t('explain.named', { date: dateAndTime(Date.now()) }));
  const [choice, setChoice] = useState({ pointing: true, focus: true, moving: true, perPage: false });
  const { microphone, microphones, problem, choose, keep } = useMicrophone();
  const camera = useFaceCamera();
  const live = choice.moving ? studio.live : undefined;
  const left = useRoomLeft(room, { moving: live?.now() != null, face: camera.face !== undefined });
  const [failed, setFailed] = useState<string>();
  const begin = () => {
    const { pointing, focus, perPage } = choice;
    const wish = { pointing, focus, perPage, live, microphone: keep(), face: camera.keep() };
    studio.begin(name.trim() || t('explain.recording'), wish).then(onBegun, () => {
      wish.microphone?.close();
      wish.face?.close();
      setFailed(t('explain.noRoomHere'));
    });
  };
  const options = [
    ...microphones.map(({ id, name }) => ({ value: id, name })),
    { value: NO_VOICE, name: t('explain.noVoice') },
  ];
  return (
    <section aria-label={t('explain.recordNew')} className="rounded-xl bg-paper-dim p-4">
      <h3 className="mb-3 text-lg font-bold">{t('explain.recordNew')}</h3>
      <TextField
        label={t('explain.name')}
        value={name}
        maxLength={120}
        onChange={({ target }) => setName(target.value)}
      />
      <SelectField
        label={t('explain.microphone')}
        value={microphone?.device ?? NO_VOICE}
        options={options}
        onChange={(value) => choose(value === NO_VOICE ? undefined : value)}
      />
      <Problem>{problem ?? camera.problem ?? failed}</Problem>
      {microphone && (
        <div className="mb-4 flex flex-wrap items-center gap-3">
          <span>{t('explain.sayAFewWords')}</span>
          <LevelBar microphone={microphone} />
        </div>
      )}
      <div className="*:mb-1">
        <Tick checked={choice.pointing} onChange={(pointing) => setChoice({ ...choice, pointing })}>
          {t('explain.withPointing')}
        </Tick>
        {inClass && (
          <Tick checked={choice.focus} onChange={(focus) => setChoice({ ...choice, focus })}>
            {t('explain.withFocus')}
          </Tick>
        )}
        {studio.live && (
          <Tick checked={choice.moving} onChange={(moving) => setChoice({ ...choice, moving })}>
            {t('explain.withMoving')}
          </Tick>
        )}
        {studio.live && (
          <Tick checked={camera.isWanted} onChange={camera.want}>
            {t('explain.withFace')}
          </Tick>
        )}
        {camera.face && <FaceView face={camera.face} className="mb-3 w-40" />}
        <Tick checked={choice.perPage} onChange={(perPage) => setChoice({ ...choice, perPage })}>
          {t('explain.perPage')}
        </Tick>
      </div>
      {left !== undefined && <p className="mb-2 text-sm text-ink-soft">{roomText(left)}</p>}
      {inClass && <p className="mb-2 text-sm text-ink-soft">{t('explain.classSees')}</p>}
      <div className="flex justify-end">
        <Button
          look="main"
          icon={<CircleDot aria-hidden size={18} />}
          disabled={camera.isWanted && !camera.face}
          onClick={begin}
        >
          {t('explain.record')}
        </Button>
      </div>
    </section>
  );
}

/** The microphone that is chosen, open as long as nobody else keeps it. */
function useMicrophone() {
  const [microphone, setMicrophone] = useState<Microphone>();
  const [microphones, setMicrophones] = useState<readonly { id: string; name: string }[]>([]);
  const [problem, setProblem] = useState<string>();
  const [wanted, setWanted] = useState<{ device?: string } | undefined>({});
  const kept = useRef(false);
  useEffect(() => {
    let gone = false;
    let opened: Microphone | undefined;
    if (wanted)
      Microphone.open(wanted.device).then(
        (one) => {
          if (gone) return one.close();
          opened = one;
          setMicrophone(one);
          setProblem(undefined);
          // Without a list one has the microphone that is open.
          Microphone.list().then(setMicrophones, () => undefined);
        },
        (error: Error) => !gone && setProblem(error.message),
      );
    return () => {
      gone = true;
      setMicrophone(undefined);
      if (!kept.current) opened?.close();
    };
  }, [wanted]);
  return {
    microphone,
    microphones,
    problem,
    choose: (device: string | undefined) => setWanted(device === undefined ? undefined : { device }),
    /** Takes it over: it stays open. */
    keep(): Microphone | undefined {
      kept.current = microphone !== undefined;
      return microphone;
    },
  };
}
