import { DoorOpen, PenOff, Pen, QrCode, Share, TabletSmartphone } from 'lucide-react';
import { useStore } from '../store/useStore';
import type { SittingDetail } from '../api/lessons';
import { BringInMenu } from '../material/BringInMenu';
import { ShowMenu } from '../sharing/ShowMenu';
import { Button } from '../ui/Button';
import type { PageDesk } from '../room/pageDesk';
import { PeopleMenu } from './PeopleMenu';
import { spacedCode } from '../ui/spacedCode';

interface ClassBarProps {
  desk: PageDesk;
  sitting: SittingDetail;
  onJoin(): void;
  onHandOut(): void;
  onEnd(): void;
  onDevices(): void;
}

/** What a teacher needs for the class: the code, who is here, pens, hand out, end. */
export function ClassBar({ desk, sitting, onJoin, onHandOut, onEnd, onDevices }: ClassBarProps) {
  const state = useStore(desk.classroom!.state);
  const ended = state?.ended ?? sitting.endedAt !== null;
  const pensUp = state?.pensUp ?? false;
  const devices = state?.devices.filter(({ here }) => here).length ?? 0;
  return (
    <>
      {!ended && (
        <Button
          look="onBoard"
          icon={<QrCode aria-hidden size={18} />}
          onClick={onJoin}
          aria-label={`Join code ${spacedCode(sitting.code)}`}
        >
          <span className="tracking-widest">{spacedCode(sitting.code)}</span>
        </Button>
      )}
      <PeopleMenu room={desk.room} people={state?.people ?? []} ended={ended} />
      {!ended && <BringInMenu desk={desk} />}
      {!ended && <ShowMenu room={desk.room} />}
      {!ended && (
        <Button
          look="onBoard"
          aria-pressed={pensUp}
          className={pensUp ? '!border-chalk !bg-chalk !text-board' : ''}
          icon={pensUp ? <Pen aria-hidden size={18} /> : <PenOff aria-hidden size={18} />}
          onClick={() => desk.classroom!.setPens(!pensUp)}
        >
          {pensUp ? 'Pens up' : 'Pens down'}
        </Button>
      )}
      {!ended && (
        <Button
          look="onBoard"
          icon={<TabletSmartphone aria-hidden size={18} />}
          aria-label={`Devices: ${devices}`}
          onClick={onDevices}
        >
          {devices > 0 && devices}
        </Button>
      )}
      <Button look="onBoard" icon={<Share aria-hidden size={18} />} onClick={onHandOut}>
        Hand out
      </Button>
      {!ended && (
        <Button look="onBoard" icon={<DoorOpen aria-hidden size={18} />} onClick={onEnd}>
          End class
        </Button>
      )}
    </>
  );
}
