import { ArrowDownToLine, MoveHorizontal, RectangleHorizontal } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import type { DevicePlace } from '@doodla/core';
import { devicePlace, enterAsDevice, leaveAsDevice } from '../api/devices';
import { WorkspaceView } from '../classroom/WorkspaceView';
import { IconButton } from '../ui/IconButton';
import { useWorkspace } from '../room/useWorkspace';
import type { PageDesk } from '../room/pageDesk';
import type { Workspace } from '../room/workspace';
import { Band } from './band';
import { EnterDevice } from './EnterDevice';
import { useStay } from './useStay';
import { t } from '../words';

/** A phone or tablet as a writing pad: one scan, no sign-in. */
export default function PadPage() {
  const { code } = useParams();
  const navigate = useNavigate();
  const [place, setPlace] = useState(() => (code === undefined ? devicePlace('pad') : undefined));
  const [reason, setReason] = useState<string>();
  const asked = useRef(false);
  useEffect(() => {
    if (code === undefined || asked.current) return;
    asked.current = true;
    const known = devicePlace('pad');
    enterAsDevice(code).then(
      (entered) => {
        setPlace(entered);
        // The code is used up: a reload must not try it again.
        void navigate('/pad', { replace: true });
      },
      (error: Error) => (known ? setPlace(known) : setReason(error.message)),
    );
  }, [code, navigate]);
  const leave = (why: string) => {
    leaveAsDevice('pad');
    setReason(why);
    setPlace(undefined);
  };
  if (place) return <Writing place={place} onLeave={leave} />;
  if (code !== undefined && reason === undefined)
    return <p className="p-8 text-lg">{t('devices.connecting')}</p>;
  return <EnterDevice key={reason} title={t('common.writingPad')} reason={reason} onEntered={setPlace} />;
}

function Writing({ place, onLeave }: { place: DevicePlace; onLeave(why: string): void }) {
  const { lesson, sitting, token } = place;
  const workspace = useWorkspace({ lesson, sitting, token, device: 'pad' });
  return workspace ? <Pad workspace={workspace} onLeave={onLeave} /> : null;
}

function Pad({ workspace, onLeave }: { workspace: Workspace; onLeave(why: string): void }) {
  const why = useStay(workspace.room);
  useEffect(() => {
    if (why !== undefined) onLeave(why);
  }, [why, onLeave]);
  return (
    <WorkspaceView
      workspace={workspace}
      slim
      corners={(_, side) => <BandSwitch desk={workspace.main} side={side} />}
    />
  );
}

/** Whole page, or a band of it that moves on as one writes. */
function BandSwitch({ desk, side }: { desk: PageDesk; side: 'left' | 'right' }) {
  const [band, setBand] = useState<Band>();
  useEffect(() => () => band?.end(), [band]);
  const toggle = () => {
    if (band) return setBand(undefined);
    const glass = desk.glass.get();
    if (glass) setBand(new Band(glass, desk));
  };
  return (
    <div
      className="absolute top-2 z-30 flex items-center rounded-2xl bg-board forced-colors:border-2 p-0.5 text-paper shadow-xl"
      style={{ [side]: 8 }}
    >
      <IconButton
        label={band ? t('devices.theWholePage') : t('devices.aBandThatMovesOn')}
        active={band !== undefined}
        icon={band ? <RectangleHorizontal aria-hidden /> : <MoveHorizontal aria-hidden />}
        onClick={toggle}
      />
      {band && (
        <IconButton
          label={t('common.nextLine')}
          icon={<ArrowDownToLine aria-hidden />}
          onClick={() => band.nextLine()}
        />
      )}
    </div>
  );
}
