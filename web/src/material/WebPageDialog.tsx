import { useEffect, useRef, useState } from 'react';
import { bringWebFile, bringWebPage } from '../api/lessons';
import { Button } from '../ui/Button';
import { Problem } from '../ui/Problem';
import { Modal } from '../ui/Modal';
import { TextField } from '../ui/TextField';
import type { PageDesk } from '../room/pageDesk';
import { broughtIn, sayLost } from './broughtIn';
import { t } from '../words';

/** Brings a web page in, by its address or from a file. */
export default function WebPageDialog({ desk, onClose }: { desk: PageDesk; onClose(): void }) {
  const [address, setAddress] = useState('');
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string>();
  const chooser = useRef<HTMLInputElement>(null);
  const abort = useRef(new AbortController());
  useEffect(() => () => abort.current.abort(), []);

  const bring = async (
    fetching: (after: string | undefined, signal: AbortSignal) => Promise<{ page: string; lost: number }>,
  ) => {
    setBusy(true);
    setProblem(undefined);
    try {
      const { page, lost } = await fetching(desk.pageId.get(), abort.current.signal);
      broughtIn(desk, [page]);
      sayLost(lost);
      onClose();
    } catch (error) {
      setBusy(false);
      if (!abort.current.signal.aborted) setProblem((error as Error).message);
    }
  };
  return (
    <Modal
      title={t('material.aWebPage')}
      description={t('material.aCopyIsKeptSo')}
      open
      onOpenChange={onClose}
    >
      <form
        onSubmit={(event) => {
          event.preventDefault();
          const whole = /^https?:/i.test(address) ? address : `https://${address}`;
          void bring((after, signal) =>
            bringWebPage(desk.room.lesson, { address: whole.trim(), after, sitting: desk.sitting }, signal),
          );
        }}
      >
        <TextField
          label={t('material.address')}
          placeholder="https://"
          inputMode="url"
          value={address}
          onChange={(event) => setAddress(event.target.value)}
        />
        <Problem>{problem}</Problem>
        <div className="flex flex-wrap gap-3">
          <Button type="submit" look="main" disabled={busy || address.trim() === ''}>
            {busy ? t('material.fetching') : t('material.bringItIn')}
          </Button>
          <Button disabled={busy} onClick={() => chooser.current!.click()}>
            {t('material.fromAFile')}
          </Button>
        </div>
      </form>
      <input
        ref={chooser}
        type="file"
        accept=".html,.htm,.mhtml,.mht"
        aria-label={t('material.webPageFile')}
        className="sr-only"
        tabIndex={-1}
        onChange={(event) => {
          const file = event.target.files?.[0];
          if (file)
            void bring((after, signal) =>
              bringWebFile(desk.room.lesson, file, { after, sitting: desk.sitting }, signal),
            );
        }}
      />
    </Modal>
  );
}
