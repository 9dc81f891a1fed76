import type { FormEvent } from 'react';
import { Button } from '../ui/Button';
import { Modal } from '../ui/Modal';
import { TextField } from '../ui/TextField';
import type { NumberedPage } from './numberedPage';
import { t } from '../words';

/** Another name for a page. */
export default function RenamePageDialog({ page, desk, onClose }: NumberedPage & { onClose(): void }) {
  const rename = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const title = new FormData(event.currentTarget).get('title') as string;
    desk.pageActions.rename(page.id, title.trim());
    onClose();
  };
  return (
    <Modal title={t('pages.renamePage')} open onOpenChange={onClose}>
      <form onSubmit={rename}>
        <TextField label={t('pages.nameOfThePage')} name="title" defaultValue={page.title} maxLength={200} />
        <Button type="submit" look="main">
          {t('common.keepThisName')}
        </Button>
      </form>
    </Modal>
  );
}
