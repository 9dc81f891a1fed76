import { FilePlus2 } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { lazy, Suspense, useState } from 'react';
import { Button } from '../ui/Button';
import type { PageDesk } from '../room/pageDesk';
import { MENU_ITEM, MenuContent } from '../ui/MenuContent';

const DocumentDialog = lazy(() => import('./DocumentDialog'));
const PhotoDialog = lazy(() => import('../photo/PhotoDialog'));
const MediaDialog = lazy(() => import('./MediaDialog'));
const WebPageDialog = lazy(() => import('./WebPageDialog'));

type Sheet = 'document' | 'web' | 'photo' | 'media' | undefined;

/** What can be brought in as pages, before class and in the middle of it. */
export function BringInMenu({ desk }: { desk: PageDesk }) {
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
        <MenuContent align="end">
          <DropdownMenu.Item className={MENU_ITEM} onSelect={() => setSheet('document')}>
            Pages of a document
          </DropdownMenu.Item>
          <DropdownMenu.Item className={MENU_ITEM} onSelect={() => setSheet('web')}>
            A web page
          </DropdownMenu.Item>
          <DropdownMenu.Item className={MENU_ITEM} onSelect={() => setSheet('photo')}>
            A photo of a worksheet
          </DropdownMenu.Item>
          <DropdownMenu.Item className={MENU_ITEM} onSelect={() => setSheet('media')}>
            A sound or video file
          </DropdownMenu.Item>
        </MenuContent>
      </DropdownMenu.Root>
      <Suspense>
        {sheet === 'document' && <DocumentDialog desk={desk} onClose={close} />}
        {sheet === 'photo' && <PhotoDialog desk={desk} onClose={close} />}
        {sheet === 'media' && <MediaDialog desk={desk} onClose={close} />}
        {sheet === 'web' && <WebPageDialog desk={desk} onClose={close} />}
      </Suspense>
    </>
  );
}
