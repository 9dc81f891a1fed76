import type { DeviceKind, InviteReply } from '@doodla/core';
import { toDataURL } from 'qrcode';
import { spacedCode } from '../ui/spacedCode';
import { t } from '../words';
import { Rich } from '../words/Rich';

/** What lets a device in, to be typed or scanned there. */
export interface Invitation extends InviteReply {
  kind: DeviceKind;
  /** The address as a QR code, a data URL. */
  qr: string;
}

/** An invitation as it is shown. Throws RequestError that says what to do. */
export async function invited(kind: DeviceKind, reply: Promise<InviteReply>): Promise<Invitation> {
  const { code, address } = await reply;
  const qr = await toDataURL(address, { margin: 2, width: 480, errorCorrectionLevel: 'M' });
  return { kind, code, address, qr };
}

/** Shows what lets a device in, and how. */
export function Invite({ kind, code, address, qr }: Invitation) {
  return (
    <div className="mb-4 flex flex-col items-center gap-2 text-center">
      {kind === 'companion' && (
        <a href="/companion" target="_blank" className="mb-1 underline">
          {t('devices.getIt')}
        </a>
      )}
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
