import ReplayDialog from '../replay/ReplayDialog';
import type { NumberedPage } from './numberedPage';

/** One page, played again. */
export default function ReplayOfPage({ desk, page, onClose }: NumberedPage & { onClose(): void }) {
  return <ReplayDialog desk={desk} page={page.id} onClose={onClose} />;
}
