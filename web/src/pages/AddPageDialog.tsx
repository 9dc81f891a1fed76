import { PageDialog } from './PageDialog';
import type { NumberedPage } from './numberedPage';

type Props = NumberedPage & { onClose(): void };

/** A new page before or after one. */
function AddPageDialog({ page, desk, onClose, place }: Props & { place: 'before' | 'after' }) {
  return (
    <PageDialog
      title="A new page"
      action="Add this page"
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
