import { toast } from 'sonner';
import { Button } from '../ui/Button';
import { pasteMarks } from '../room/useClipboard';
import type { PageDesk } from '../room/pageDesk';

/** What needs keys otherwise, for those who have none at hand. */
export function SelectSheet({ desk }: { desk: PageDesk }) {
  const paste = () => {
    if (!pasteMarks(desk, ''))
      toast('Nothing has been copied yet. Select something, and choose Copy.', { id: 'paste' });
  };
  return (
    <>
      <Button look="onBoard" onClick={paste}>
        Paste
      </Button>
      <Button look="onBoard" onClick={() => desk.selection.selectAll()}>
        Select everything
      </Button>
    </>
  );
}
