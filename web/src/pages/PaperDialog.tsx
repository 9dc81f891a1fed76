import { PageDialog } from './PageDialog';
import type { NumberedPage } from './numberedPage';

/** Another paper for a page; what is written on it stays. */
export default function PaperDialog({ page, desk, onClose }: NumberedPage & { onClose(): void }) {
  return (
    <PageDialog
      title="The paper of this page"
      action="Use this paper"
      desk={desk}
      page={page}
      onClose={onClose}
      onChoose={(made) => (onClose(), desk.pageActions.setSheet(page.id, made))}
    />
  );
}
