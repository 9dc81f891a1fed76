import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { changeLesson, createFolder, foldersQuery } from '../api/lessons';
import { Button } from '../ui/Button';
import { Modal } from '../ui/Modal';
import { RadioList } from '../ui/RadioList';
import { TextField } from '../ui/TextField';
import { pathTo } from './arranged';
import type { ListedLesson } from './listedLesson';
import { attempt } from './listedLesson';
import { t } from '../words';

/** Puts a lesson into a folder, or into none; a new one can be made on the way. */
export default function MoveLessonDialog({ lesson, client, onClose }: ListedLesson & { onClose(): void }) {
  const { data: folders = [] } = useQuery(foldersQuery);
  const [chosen, setChosen] = useState(lesson.folder);
  const [made, setMade] = useState('');
  const move = async () => {
    const folder = made.trim() === '' ? chosen : (await createFolder({ title: made, parent: chosen })).id;
    await changeLesson(lesson.id, { folder });
  };
  const options = folders
    .map(({ id }) => ({
      value: id,
      name: pathTo(folders, id)
        .map(({ title }) => title)
        .join(' / '),
    }))
    .sort((a, b) => a.name.localeCompare(b.name, undefined, { numeric: true }));
  return (
    <Modal title={t('lessons.whereShouldItLie', { title: lesson.title })} open onOpenChange={onClose}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          onClose();
          void attempt(client, move());
        }}
      >
        <RadioList<string | null>
          legend={t('lessons.folder')}
          value={chosen}
          options={[{ value: null, name: t('lessons.inNoFolder') }, ...options]}
          onChange={setChosen}
        />
        <TextField
          label={t('lessons.inANewFolderThere')}
          value={made}
          maxLength={100}
          onChange={(event) => setMade(event.target.value)}
        />
        <Button type="submit" look="main">
          {t('lessons.putItThere')}
        </Button>
      </form>
    </Modal>
  );
}
