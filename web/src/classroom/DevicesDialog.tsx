import type { DeviceKind } from '@doodla/core';
import { Monitor, PenTool, Tablet, X } from 'lucide-react';
import { toDataURL } from 'qrcode';
import { useState } from 'react';
import { useStore } from '../store/useStore';
import { inviteDevice, removeDevice } from '../api/devices';
import { spacedCode } from '../ui/spacedCode';
import { Button } from '../ui/Button';
import { Problem } from '../ui/Problem';
import { Modal } from '../ui/Modal';
import type { Room } from '../room/room';

interface Invitation {
  kind: DeviceKind;
  code: string;
  address: string;
  qr: string;
}

const NAMES: Record<DeviceKind, string> = { display: 'Classroom display', pad: 'Writing pad' };

/** Lets a classroom display or a writing pad in, and out again. */
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
      title="Display and writing pad"
      description="Both write as you do. A code lets one device in, and all of them leave when the class ends."
      open
      onOpenChange={onClose}
    >
      <div className="mb-4 grid grid-cols-2 gap-3">
        <Button icon={<Monitor aria-hidden size={20} />} onClick={() => void invite('display')}>
          A display
        </Button>
        <Button icon={<Tablet aria-hidden size={20} />} onClick={() => void invite('pad')}>
          A pad
        </Button>
      </div>
      <Problem>{problem}</Problem>
      {invitation && <Invite {...invitation} />}
      <ul aria-label="Connected" className="flex flex-col gap-1">
        {state?.devices.map(({ id, kind, here }, i) => (
          <li key={id} className="flex min-h-11 items-center gap-3 rounded-xl bg-paper-dim px-3">
            {kind === 'display' ? <Monitor aria-hidden size={20} /> : <PenTool aria-hidden size={20} />}
            <span className="grow">
              {NAMES[kind]} {i + 1}
              {!here && <span className="text-ink-soft"> (asleep or away)</span>}
            </span>
            <Button icon={<X aria-hidden size={18} />} onClick={() => remove(id)}>
              Take out
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
      {kind === 'display' ? (
        <>
          <p>
            On the display, open{' '}
            <strong className="select-text">{address.replace(/^https?:\/\//, '')}</strong> and type
          </p>
          <p className="text-5xl font-bold tracking-widest" data-testid="device-code">
            {spacedCode(code)}
          </p>
        </>
      ) : (
        <>
          <p>Scan this with the phone or tablet that you want to write on.</p>
          <img
            src={qr}
            alt={`QR code of ${address}`}
            className="size-56 rounded-xl border-2 border-paper-line"
          />
          <p className="break-all select-text" data-testid="pad-address">
            {address}
          </p>
        </>
      )}
      <p className="text-sm text-ink-soft">Good once, for fifteen minutes.</p>
    </div>
  );
}
