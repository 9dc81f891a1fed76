import type { ShelfThing } from '@doodla/core';
import { SHELF_TITLE_LENGTH } from '@doodla/core';
import type { FormEvent } from 'react';
import { useId, useState } from 'react';
import { changeThing } from '../api/shelf';
import { Button } from '../ui/Button';
import { Modal } from '../ui/Modal';
import { Problem } from '../ui/Problem';
import { TextField } from '../ui/TextField';
import { t } from '../words';
import { shelfChanged } from './shelfState';

interface ThingDialogProps {
  thing: ShelfThing;
  folders: readonly string[];
  onClose(): void;
}

/** What a thing is called, and where it lies; a folder is there once something lies in it. */
export function ThingDialog({ thing, folders, onClose }: ThingDialogProps) {
  const known = useId();
  const [problem, setProblem] = useState<string>();
  const keep = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = new FormData(event.currentTarget);
    const [title, folder] = ['title', 'folder'].map((name) => form.get(name) as string);
    changeThing(thing.id, { title, folder }).then(
      () => {
        shelfChanged.tell();
        onClose();
      },
      (error: Error) => setProblem(error.message),
    );
  };
  return (
    <Modal title={t('shelf.nameAndFolder')} open onOpenChange={onClose}>
      <form onSubmit={keep}>
        <TextField
          label={t('shelf.name')}
          name="title"
          required
          maxLength={SHELF_TITLE_LENGTH}
          defaultValue={thing.title}
        />
        <TextField
          label={t('shelf.folder')}
          name="folder"
          list={known}
          maxLength={SHELF_TITLE_LENGTH}
          defaultValue={thing.folder}
        />
        <datalist id={known}>
          {folders.map((name) => (
            <option key={name} value={name} />
          ))}
        </datalist>
        {problem !== undefined && <Problem>{problem}</Problem>}
        <Button look="main" type="submit">
          {t('common.keepThisName')}
        </Button>
      </form>
    </Modal>
  );
}
