import { FilePlus2 } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { lazy, Suspense, useState } from 'react';
import { Button } from '../ui/Button';
import type { Workspace } from '../workspace/workspace';

const DocumentDialog = lazy(() => import('./DocumentDialog'));
const PhotoDialog = lazy(() => import('../photo/PhotoDialog'));
const MediaDialog = lazy(() => import('../media/MediaDialog'));
const WebPageDialog = lazy(() => import('./WebPageDialog'));

const ITEM =
  'flex min-h-11 cursor-pointer items-center gap-3 rounded-xl px-3 outline-none data-highlighted:bg-paper-dim';

type Sheet = 'document' | 'web' | 'photo' | 'media' | undefined;

/** What can be brought in as pages, before class and in the middle of it. */
export function BringInMenu({ workspace }: { workspace: Workspace }) {
  const [sheet, setSheet] = useState<Sheet>();
  const close = () => setSheet(undefined);
  return (
    <>
      <DropdownMenu.Root>
        <DropdownMenu.Trigger asChild>
          <Button look="onBoard" icon={<FilePlus2 aria-hidden size={18} />}>
            Bring in
          </Button>
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content
            align="end"
            sideOffset={8}
            className="z-40 rounded-2xl border-2 border-board-line bg-paper p-2 shadow-xl"
          >
            <DropdownMenu.Item className={ITEM} onSelect={() => setSheet('document')}>
              Pages of a document
            </DropdownMenu.Item>
            <DropdownMenu.Item className={ITEM} onSelect={() => setSheet('web')}>
              A web page
            </DropdownMenu.Item>
            <DropdownMenu.Item className={ITEM} onSelect={() => setSheet('photo')}>
              A photo of a worksheet
            </DropdownMenu.Item>
            <DropdownMenu.Item className={ITEM} onSelect={() => setSheet('media')}>
              A sound or video file
            </DropdownMenu.Item>
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
      <Suspense>
        {sheet === 'document' && <DocumentDialog workspace={workspace} onClose={close} />}
        {sheet === 'photo' && <PhotoDialog workspace={workspace} onClose={close} />}
        {sheet === 'media' && <MediaDialog workspace={workspace} onClose={close} />}
        {sheet === 'web' && <WebPageDialog workspace={workspace} onClose={close} />}
      </Suspense>
    </>
  );
}
