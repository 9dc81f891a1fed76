import type { PageDesk } from '../room/pageDesk';
import { PlayedDialog, Reading } from './PlayedDialog';
import { ReplayView } from './ReplayView';
import { useRecorded } from './useRecorded';

interface ReplayDialogProps {
  desk: PageDesk;
  /** The page that is played first; the whole class where it is left out. */
  page?: string | undefined;
  onClose(): void;
}

/** A page or the whole class, played again as it was written. */
export default function ReplayDialog(props: ReplayDialogProps) {
  return (
    <PlayedDialog onClose={props.onClose}>
      <LogReader {...props} />
    </PlayedDialog>
  );
}

function LogReader({ desk, page, onClose }: ReplayDialogProps) {
  const { recorded, ...reading } = useRecorded(desk.room);
  if (!recorded) return <Reading {...reading} />;
  return <ReplayView desk={desk} recorded={recorded} page={page} onClose={onClose} />;
}
