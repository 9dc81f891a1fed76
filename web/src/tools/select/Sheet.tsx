import { toast } from 'sonner';
import { useStore } from '../../store/useStore';
import { Button } from '../../ui/Button';
import { Switch } from '../../ui/Switch';
import { pasteMarks } from '../../desk/pasteMarks';
import type { ToolDesk } from '../toolWork';
import { t } from '../../words';

/** What needs keys otherwise, for those who have none at hand. */
export default function SelectSheet({ desk }: { desk: ToolDesk }) {
  const paste = () => {
    if (!pasteMarks(desk, '')) toast(t('tools.nothingHasBeenCopiedYet'), { id: 'paste' });
  };
  const { guides } = useStore(desk.penCase);
  return (
    <>
      <Switch
        label={t('construct.guides')}
        checked={guides}
        onChange={(on) => desk.penCase.patch({ guides: on })}
      />
      <Button look="onBoard" onClick={paste}>
        {t('tools.paste')}
      </Button>
      <Button look="onBoard" onClick={() => desk.selection.selectAll()}>
        {t('common.selectEverything')}
      </Button>
    </>
  );
}
