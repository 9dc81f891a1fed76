import type { Mark } from '@doodla/core';
import type { FormEvent } from 'react';
import { Button } from '../ui/Button';
import { Modal } from '../ui/Modal';
import { TextField } from '../ui/TextField';
import type { PageDesk } from '../room/pageDesk';
import { t } from '../words';

interface AltDialogProps {
  marks: readonly Mark[];
  desk: PageDesk;
  onClose(): void;
}

/** Words for what the selected marks show. */
export function AltDialog({ marks, desk, onClose }: AltDialogProps) {
  const keep = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const words = (new FormData(event.currentTarget).get('alt') as string).trim();
    desk.selection.setAlt(words === '' ? null : words);
    onClose();
  };
  return (
    <Modal
      title={t('selection.whatDoesThisShow')}
      description={t('selection.readOutByScreenReaders')}
      open
      onOpenChange={onClose}
    >
      <form onSubmit={keep}>
        <TextField
          label={t('selection.description')}
          name="alt"
          defaultValue={marks[0]?.alt ?? ''}
          maxLength={1000}
        />
        <Button type="submit" look="main">
          {t('selection.keepThisDescription')}
        </Button>
      </form>
    </Modal>
  );
}
