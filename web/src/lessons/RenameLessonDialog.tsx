import type { FormEvent } from 'react';
import { changeLesson } from '../api/lessons';
import { Button } from '../ui/Button';
import { Modal } from '../ui/Modal';
import { TextField } from '../ui/TextField';
import type { ListedLesson } from './listedLesson';
import { attempt } from './listedLesson';
import { t } from '../words';

/** Another title for a lesson. */
export default function RenameLessonDialog({ lesson, client, onClose }: ListedLesson & { onClose(): void }) {
  const rename = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const title = new FormData(event.currentTarget).get('title') as string;
    onClose();
    void attempt(client, changeLesson(lesson.id, { title }));
  };
  return (
    <Modal title={t('lessons.renameLesson')} open onOpenChange={onClose}>
      <form onSubmit={rename}>
        <TextField
          label={t('lessons.title')}
          name="title"
          defaultValue={lesson.title}
          maxLength={200}
          required
        />
        <Button type="submit" look="main">
          {t('lessons.keepThisTitle')}
        </Button>
      </form>
    </Modal>
  );
}
