import { PageDialog } from './PageDialog';
import type { NumberedPage } from './numberedPage';
import { t } from '../words';

type Props = NumberedPage & { onClose(): void };

/** A new page before or after one. */
function AddPageDialog({ page, desk, onClose, place }: Props & { place: 'before' | 'after' }) {
  return (
    <PageDialog
      title={t('pages.aNewPage')}
      action={t('pages.addThisPage')}
      desk={desk}
      onClose={onClose}
      onChoose={(made) => (onClose(), desk.pageActions.add(made, page.id, place))}
    />
  );
}

export function BeforeDialog(props: Props) {
  return <AddPageDialog {...props} place="before" />;
}

export function AfterDialog(props: Props) {
  return <AddPageDialog {...props} place="after" />;
}
