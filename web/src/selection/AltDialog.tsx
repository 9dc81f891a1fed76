import type { Mark } from '@doodla/core';
import type { FormEvent } from 'react';
import { Button } from '../ui/Button';
import { Modal } from '../ui/Modal';
import { TextField } from '../ui/TextField';
import type { Workspace } from '../workspace/workspace';

interface AltDialogProps {
  marks: readonly Mark[];
  workspace: Workspace;
  onClose(): void;
}

/** Words for what the selected marks show. */
export function AltDialog({ marks, workspace, onClose }: AltDialogProps) {
  const keep = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const words = (new FormData(event.currentTarget).get('alt') as string).trim();
    workspace.selection.setAlt(words === '' ? null : words);
    onClose();
  };
  return (
    <Modal
      title="What does this show?"
      description="Read out by screen readers, and kept with the mark."
      open
      onOpenChange={onClose}
    >
      <form onSubmit={keep}>
        <TextField label="Description" name="alt" defaultValue={marks[0]?.alt ?? ''} maxLength={1000} />
        <Button type="submit" look="main">
          Keep this description
        </Button>
      </form>
    </Modal>
  );
}
