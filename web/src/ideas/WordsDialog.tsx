import type { FormEvent } from 'react';
import { Button } from '../ui/Button';
import { Modal } from '../ui/Modal';
import { TextField } from '../ui/TextField';
import { t } from '../words';
import type { Idea } from './boxOf';
import { MOST_LETTERS } from './mostLetters';

interface WordsDialogProps {
  mark: Idea;
  onWritten(words: string): void;
  onClose(): void;
}

/** The words of a note, or the title of a group. */
export function WordsDialog({ mark, onWritten, onClose }: WordsDialogProps) {
  const submit = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const words = (new FormData(event.currentTarget).get('words') as string).trim();
    if (words !== '' && words !== mark.text) onWritten(words);
    onClose();
  };
  return (
    <Modal
      title={mark.kind === 'note' ? t('ideas.changeWords') : t('ideas.titleOfGroup')}
      open
      onOpenChange={onClose}
    >
      <form onSubmit={submit}>
        <TextField
          label={mark.kind === 'note' ? t('ideas.words') : t('ideas.titleOfGroup')}
          name="words"
          defaultValue={mark.text}
          maxLength={MOST_LETTERS}
          autoFocus
          onFocus={(event) => event.target.select()}
        />
        <Button look="main" type="submit">
          {t('ideas.keep')}
        </Button>
      </form>
    </Modal>
  );
}
