import type { DeviceKind } from '@doodla/core';
import { AppWindow, Monitor, PenTool, Tablet, X } from 'lucide-react';
import type { ReactNode } from 'react';
import { useState } from 'react';
import { useStore } from '../store/useStore';
import { inviteDevice, removeDevice } from '../api/devices';
import type { Invitation } from './Invite';
import { Invite, invited } from './Invite';
import { Button } from '../ui/Button';
import { Problem } from '../ui/Problem';
import { Modal } from '../ui/Modal';
import type { Room } from '../room/room';
import { t } from '../words';

const NAMES: Record<DeviceKind, string> = {
  display: t('common.classroomDisplay'),
  pad: t('common.writingPad'),
  companion: t('classroom.companion'),
};

const ICONS: Record<DeviceKind, ReactNode> = {
  display: <Monitor aria-hidden size={20} />,
  pad: <PenTool aria-hidden size={20} />,
  companion: <AppWindow aria-hidden size={20} />,
};

/** Lets a classroom display, a writing pad or a companion in, and out again. */
export default function DevicesDialog({ room, onClose }: { room: Room; onClose(): void }) {
  const state = useStore(room.classroom!.state);
  const [invitation, setInvitation] = useState<Invitation>();
  const [problem, setProblem] = useState<string>();
  const sitting = room.sitting!;
  const invite = async (kind: DeviceKind) => {
    setProblem(undefined);
    try {
      setInvitation(await invited(kind, inviteDevice(sitting, kind)));
    } catch (error) {
      setProblem((error as Error).message);
    }
  };
  const remove = (id: string) =>
    void removeDevice(sitting, id).catch((error: Error) => setProblem(error.message));
  return (
    <Modal
      title={t('classroom.displayAndWritingPad')}
      description={t('classroom.bothWriteAsYouDo')}
      open
      onOpenChange={onClose}
    >
      <div className="mb-4 grid grid-cols-[repeat(auto-fit,minmax(11rem,1fr))] gap-3">
        <Button icon={<Monitor aria-hidden size={20} />} onClick={() => void invite('display')}>
          {t('classroom.aDisplay')}
        </Button>
        <Button icon={<Tablet aria-hidden size={20} />} onClick={() => void invite('pad')}>
          {t('classroom.aPad')}
        </Button>
        <Button icon={<AppWindow aria-hidden size={20} />} onClick={() => void invite('companion')}>
          {t('classroom.aCompanion')}
        </Button>
      </div>
      <Problem>{problem}</Problem>
      {invitation && <Invite {...invitation} />}
      <ul aria-label={t('classroom.connected')} className="flex flex-col gap-1">
        {state?.devices.map(({ id, kind, here }, i) => (
          <li key={id} className="flex min-h-11 items-center gap-3 rounded-xl bg-paper-dim px-3">
            {ICONS[kind]}
            <span className="grow">
              {NAMES[kind]} {i + 1}
              {!here && <span className="text-ink-soft"> {t('classroom.asleepOrAway')}</span>}
            </span>
            <Button icon={<X aria-hidden size={18} />} onClick={() => remove(id)}>
              {t('classroom.takeOut')}
            </Button>
          </li>
        ))}
      </ul>
    </Modal>
  );
}
