import { PageDialog } from './PageDialog';
import type { NumberedPage } from './numberedPage';
import { t } from '../words';

/** Another paper for a page; what is written on it stays. */
export default function PaperDialog({ page, desk, onClose }: NumberedPage & { onClose(): void }) {
  return (
    <PageDialog
      title={t('pages.thePaperOfThisPage')}
      action={t('pages.useThisPaper')}
      desk={desk}
      page={page}
      onClose={onClose}
      onChoose={(made) => (onClose(), desk.pageActions.setSheet(page.id, made))}
    />
  );
}
