import { MOST_TAGS, TAG_LENGTH } from '@doodla/core';
import type { FormEvent } from 'react';
import { useState } from 'react';
import { changeLesson } from '../api/lessons';
import { Button } from '../ui/Button';
import { Modal } from '../ui/Modal';
import { TextField } from '../ui/TextField';
import type { ListedLesson } from './listedLesson';
import { attempt } from './listedLesson';
import { t } from '../words';

/** Words under which a lesson is found, a comma between two. */
export default function TagsDialog({ lesson, client, onClose }: ListedLesson & { onClose(): void }) {
  const [problem, setProblem] = useState<string>();
  const keep = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const tags = (new FormData(event.currentTarget).get('tags') as string)
      .split(',')
      .map((tag) => tag.trim())
      .filter((tag) => tag !== '');
    if (tags.length > MOST_TAGS || tags.some((tag) => tag.length > TAG_LENGTH))
      return setProblem(t('lessons.tooManyTags', { count: MOST_TAGS, letters: TAG_LENGTH }));
    onClose();
    void attempt(client, changeLesson(lesson.id, { tags }));
  };
  return (
    <Modal
      title={t('lessons.tagsOf', { title: lesson.title })}
      description={t('lessons.aCommaBetweenTwoTags')}
      open
      onOpenChange={onClose}
    >
      <form onSubmit={keep}>
        <TextField
          label={t('lessons.tags')}
          name="tags"
          defaultValue={lesson.tags.join(', ')}
          error={problem}
        />
        <Button type="submit" look="main">
          {t('lessons.keepTheseTags')}
        </Button>
      </form>
    </Modal>
  );
}
