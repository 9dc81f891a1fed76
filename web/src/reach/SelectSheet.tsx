import { toast } from 'sonner';
import { Button } from '../ui/Button';
import { pasteMarks } from '../workspace/useClipboard';
import type { Workspace } from '../workspace/workspace';

/** What needs keys otherwise, for those who have none at hand. */
export function SelectSheet({ workspace }: { workspace: Workspace }) {
  const paste = () => {
    if (!pasteMarks(workspace, ''))
      toast('Nothing has been copied yet. Select something, and choose Copy.', { id: 'paste' });
  };
  return (
    <>
      <Button look="onBoard" onClick={paste}>
        Paste
      </Button>
      <Button look="onBoard" onClick={() => workspace.selection.selectAll()}>
        Select everything
      </Button>
    </>
  );
}
