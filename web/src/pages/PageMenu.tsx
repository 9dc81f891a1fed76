import type { Page } from '@doodla/core';
import { Ellipsis } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { useState } from 'react';
import type { FormEvent } from 'react';
import { toast } from 'sonner';
import { keepInLessonToo, ownPages } from '../material/broughtIn';
import { Button } from '../ui/Button';
import { Modal } from '../ui/Modal';
import { TextField } from '../ui/TextField';
import type { PageDesk } from '../room/pageDesk';
import { annotationsToMarks } from './annotationsToMarks';
import { fetchAnew } from './fetchAnew';
import CopyPageDialog from './CopyPageDialog';
import { putPicture } from './putPicture';
import { PageDialog } from './PageDialog';
import { MENU_ITEM, MenuContent } from '../ui/MenuContent';

interface PageMenuProps {
  page: Page;
  number: number;
  desk: PageDesk;
}

/** What can be done with one page. */
export function PageMenu({ page, number, desk }: PageMenuProps) {
  const [sheet, setSheet] = useState<'before' | 'after' | 'paper' | 'name' | 'copy'>();
  const { pageActions: actions } = desk;
  const pages = desk.pages.get();
  const close = () => setSheet(undefined);
  const remove = () => {
    const step = actions.remove([page.id]);
    if (step === undefined) return toast('A lesson keeps at least one page.');
    toast(`Page ${number} was deleted.`, {
      duration: 15_000,
      action: { label: 'Undo', onClick: () => desk.target.takeBack(step) },
    });
  };
  const rename = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    actions.rename(page.id, (new FormData(event.currentTarget).get('title') as string).trim());
    close();
  };
  return (
    <>
      <DropdownMenu.Root>
        <DropdownMenu.Trigger
          aria-label={`What to do with page ${number}`}
          className="grid size-11 place-items-center rounded-xl text-paper hover:bg-board-light"
        >
          <Ellipsis aria-hidden size={20} />
        </DropdownMenu.Trigger>
        <MenuContent>
          <DropdownMenu.Item className={MENU_ITEM} onSelect={() => setSheet('after')}>
            Add a page after this
          </DropdownMenu.Item>
          <DropdownMenu.Item className={MENU_ITEM} onSelect={() => setSheet('before')}>
            Add a page before this
          </DropdownMenu.Item>
          <DropdownMenu.Item className={MENU_ITEM} onSelect={() => actions.duplicate(page.id)}>
            Duplicate
          </DropdownMenu.Item>
          <DropdownMenu.Item className={MENU_ITEM} onSelect={() => setSheet('name')}>
            Rename
          </DropdownMenu.Item>
          <DropdownMenu.Item
            className={MENU_ITEM}
            disabled={page.surface.kind !== 'blank' && page.surface.kind !== 'picture'}
            onSelect={() => setSheet('paper')}
          >
            Change the paper
          </DropdownMenu.Item>
          <DropdownMenu.Item
            className={MENU_ITEM}
            disabled={number === 1}
            onSelect={() => actions.moveTo(page.id, number - 2)}
          >
            Move up
          </DropdownMenu.Item>
          <DropdownMenu.Item
            className={MENU_ITEM}
            disabled={number === pages.length}
            onSelect={() => actions.moveTo(page.id, number)}
          >
            Move down
          </DropdownMenu.Item>
          {page.surface.kind === 'web' && (
            <DropdownMenu.Item className={MENU_ITEM} onSelect={() => void fetchAnew(desk.room, page)}>
              Fetch this web page anew
            </DropdownMenu.Item>
          )}
          {page.surface.kind === 'pdf' && (
            <DropdownMenu.Item
              className={MENU_ITEM}
              onSelect={() => void annotationsToMarks(desk.room, page)}
            >
              Make the document’s annotations marks
            </DropdownMenu.Item>
          )}
          <DropdownMenu.Item
            className={MENU_ITEM}
            disabled={page.id === desk.pageId.get()}
            onSelect={() => void putPicture(desk, page)}
          >
            Put a picture of it on the shown page
          </DropdownMenu.Item>
          {ownPages(desk).includes(page.id) && (
            <DropdownMenu.Item className={MENU_ITEM} onSelect={() => void keepInLessonToo(desk, [page.id])}>
              Keep in the lesson too
            </DropdownMenu.Item>
          )}
          <DropdownMenu.Item className={MENU_ITEM} onSelect={() => setSheet('copy')}>
            Copy or move to another lesson
          </DropdownMenu.Item>
          <DropdownMenu.Item className={`${MENU_ITEM} text-alarm`} onSelect={remove}>
            Delete
          </DropdownMenu.Item>
        </MenuContent>
      </DropdownMenu.Root>
      {(sheet === 'before' || sheet === 'after') && (
        <PageDialog
          title="A new page"
          action="Add this page"
          desk={desk}
          onClose={close}
          onChoose={(made) => (close(), actions.add(made, page.id, sheet))}
        />
      )}
      {sheet === 'paper' && (
        <PageDialog
          title="The paper of this page"
          action="Use this paper"
          desk={desk}
          page={page}
          onClose={close}
          onChoose={(made) => (close(), actions.setSheet(page.id, made))}
        />
      )}
      {sheet === 'copy' && <CopyPageDialog page={page} number={number} desk={desk} onClose={close} />}
      <Modal title="Rename page" open={sheet === 'name'} onOpenChange={close}>
        <form onSubmit={rename}>
          <TextField label="Name of the page" name="title" defaultValue={page.title} maxLength={200} />
          <Button type="submit" look="main">
            Keep this name
          </Button>
        </form>
      </Modal>
    </>
  );
}
