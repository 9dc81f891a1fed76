import { toast } from 'sonner';
import { Button } from '../../ui/Button';
import { pasteMarks } from '../../desk/pasteMarks';
import type { ToolDesk } from '../toolWork';

/** What needs keys otherwise, for those who have none at hand. */
export default function SelectSheet({ desk }: { desk: ToolDesk }) {
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
