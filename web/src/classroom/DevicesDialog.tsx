import type { DeviceKind } from '@doodla/core';
import { AppWindow, Monitor, PenTool, Tablet, X } from 'lucide-react';
import type { ReactNode } from 'react';
import { toDataURL } from 'qrcode';
import { useState } from 'react';
import { useStore } from '../store/useStore';
import { inviteDevice, removeDevice } from '../api/devices';
import { spacedCode } from '../ui/spacedCode';
import { Button } from '../ui/Button';
import { Problem } from '../ui/Problem';
import { Modal } from '../ui/Modal';
import type { Room } from '../room/room';
import { t } from '../words';
import { Rich } from '../words/Rich';

interface Invitation {
  kind: DeviceKind;
  code: string;
  address: string;
  qr: string;
}

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
      const { code, address } = await inviteDevice(sitting, kind);
      const qr = await toDataURL(address, { margin: 2, width: 480, errorCorrectionLevel: 'M' });
      setInvitation({ kind, code, address, qr });
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
      {invitation?.kind === 'companion' && (
        <p className="mb-3 text-center">
          <a href="/companion" target="_blank" className="underline">
            {t('devices.getIt')}
          </a>
        </p>
      )}
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

function Invite({ kind, code, address, qr }: Invitation) {
  return (
    <div className="mb-4 flex flex-col items-center gap-2 text-center">
      {kind !== 'pad' ? (
        <>
          <p>
            <Rich
              text={t(kind === 'display' ? 'classroom.onTheDisplayOpen' : 'classroom.inTheCompanion', {
                address: address.replace(/^https?:\/\//, ''),
              })}
            />
          </p>
          <p className="text-5xl font-bold tracking-widest" data-testid="device-code">
            {spacedCode(code)}
          </p>
        </>
      ) : (
        <>
          <p>{t('classroom.scanThisWithThePhone')}</p>
          <img
            src={qr}
            alt={t('classroom.qrCodeOf', { address })}
            className="size-56 rounded-xl border-2 border-paper-line"
          />
          <p className="break-all select-text" data-testid="pad-address">
            {address}
          </p>
        </>
      )}
      <p className="text-sm text-ink-soft">{t('classroom.goodOnceForFifteenMinutes')}</p>
    </div>
  );
}
