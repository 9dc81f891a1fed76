import { Copy } from 'lucide-react';
import { toDataURL } from 'qrcode';
import { useEffect, useState } from 'react';
import { toast } from 'sonner';
import type { SittingDetail } from '@doodla/core';
import { copyText } from '../secure/clipboard';
import type { Room } from '../room/room';
import { Button } from '../ui/Button';
import { Modal } from '../ui/Modal';
import { spacedCode } from '../ui/spacedCode';
import { t } from '../words';
import { Rich } from '../words/Rich';
import { DoorSection } from './DoorSection';

interface JoinDialogProps {
  room: Room;
  sitting: SittingDetail;
  onClose(): void;
}

/** How students come in: address and code to type, a link to send, a QR to scan; large enough for the back row. */
export default function JoinDialog({ room, sitting, onClose }: JoinDialogProps) {
  const [qr, setQr] = useState<string>();
  const { joinUrl, code } = sitting;
  useEffect(() => {
    void toDataURL(joinUrl, { margin: 2, width: 480, errorCorrectionLevel: 'M' }).then(setQr);
  }, [joinUrl]);
  const copy = () =>
    copyText(joinUrl).then(
      () => toast.success(t('classroom.theLinkWasCopied')),
      () => toast.error(t('classroom.theLinkCouldNotBe')),
    );
  return (
    <Modal title={t('classroom.letTheClassIn')} open onOpenChange={onClose}>
      <div className="flex flex-col items-center gap-3 text-center">
        <p>
          <Rich text={t('classroom.openAndType', { address: `${new URL(joinUrl).host}/join` })} />
        </p>
        <p className="text-6xl font-bold tracking-widest" data-testid="join-code">
          {spacedCode(code)}
        </p>
        {qr && (
          <img
            src={qr}
            alt={t('classroom.qrCodeOf', { address: joinUrl })}
            className="size-56 rounded-xl border-2 border-paper-line"
          />
        )}
        <p className="break-all select-text">{joinUrl}</p>
        <Button icon={<Copy aria-hidden size={18} />} onClick={() => void copy()}>
          {t('classroom.copyTheLink')}
        </Button>
      </div>
      <DoorSection room={room} />
    </Modal>
  );
}
