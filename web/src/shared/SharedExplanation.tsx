import type { SharedLinkDoor } from '@doodla/core';
import { Download } from 'lucide-react';
import { useEffect, useState } from 'react';
import { toast } from 'sonner';
import { fileName } from '../handout/fileName';
import { saveFile } from '../handout/saveFile';
import { PackedPage } from '../packed/PackedPage';
import { Button } from '../ui/Button';
import { pageShows } from '../ui/moments';
import { useTitle } from '../ui/useTitle';
import { t } from '../words';

/** An explanation that somebody was given a link to. */
export default function SharedExplanation({ door, shown }: { door: SharedLinkDoor; shown: Blob }) {
  useTitle(door.title);
  const [bytes, setBytes] = useState<Uint8Array>();
  useEffect(() => {
    pageShows.come();
    const tell = (error: Error) => toast.error(error.message);
    shown.arrayBuffer().then((buffer) => setBytes(new Uint8Array(buffer)), tell);
  }, [shown]);
  if (!bytes) return null;
  const save = async () => {
    const { playingFile } = await import('../packed/playingFile');
    saveFile(await playingFile(shown), fileName(door.title, 'html'));
  };
  const actions = door.mayDownload && (
    <Button
      look="onBoard"
      icon={<Download aria-hidden size={18} />}
      onClick={() => void save().catch((error: Error) => toast.error(error.message))}
    >
      {t('shared.saveExplanation')}
    </Button>
  );
  return <PackedPage bytes={bytes} actions={actions} />;
}
