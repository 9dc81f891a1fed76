import { toast } from 'sonner';
import { Button } from '../../ui/Button';
import { pasteMarks } from '../../desk/pasteMarks';
import type { ToolDesk } from '../toolWork';
import { t } from '../../words';

/** What needs keys otherwise, for those who have none at hand. */
export default function SelectSheet({ desk }: { desk: ToolDesk }) {
  const paste = () => {
    if (!pasteMarks(desk, '')) toast(t('tools.nothingHasBeenCopiedYet'), { id: 'paste' });
  };
  return (
    <>
      <Button look="onBoard" onClick={paste}>
        {t('tools.paste')}
      </Button>
      <Button look="onBoard" onClick={() => desk.selection.selectAll()}>
        {t('common.selectEverything')}
      </Button>
    </>
  );
}
