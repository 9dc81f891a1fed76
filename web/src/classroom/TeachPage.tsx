import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useLocation, useNavigate, useParams } from 'react-router';
import { toast } from 'sonner';
import type { SittingDetail } from '../api/lessons';
import { endSitting, sittingQuery } from '../api/lessons';
import { HandoutDialog } from '../handout/HandoutDialog';
import { Button } from '../ui/Button';
import { Modal } from '../ui/Modal';
import { useWorkspace } from '../workspace/useWorkspace';
import { ClassBar } from './ClassBar';
import { JoinDialog } from './JoinDialog';
import { CannotOpen } from './CannotOpen';
import { TopBar } from './TopBar';
import { WorkspaceView } from './WorkspaceView';

/** Navigation state of a class that has just been started: the first thing to do is to let the class in. */
export const JUST_STARTED = 'just-started';

/** A class in session, as its teacher sees it; or one that has ended, to look at. */
export default function TeachPage() {
  const { sitting = '' } = useParams();
  const query = useQuery(sittingQuery(sitting));
  if (query.isError) return <CannotOpen what="class" reason={query.error.message} />;
  return query.data ? <Teaching sitting={query.data} /> : null;
}

type Sheet = 'join' | 'handout' | 'end' | undefined;

function Teaching({ sitting }: { sitting: SittingDetail }) {
  const location = useLocation();
  const workspace = useWorkspace({ lesson: sitting.lessonId, sitting: sitting.id });
  const [sheet, setSheet] = useState<Sheet>(location.state === JUST_STARTED ? 'join' : undefined);
  const client = useQueryClient();
  const navigate = useNavigate();
  const close = () => {
    setSheet(undefined);
    // A reload must not ask again.
    if (location.state === JUST_STARTED) void navigate('.', { replace: true, state: null });
  };

  const end = () =>
    endSitting(sitting.id).then(
      async () => {
        await client.invalidateQueries();
        await navigate(`/lesson/${sitting.lessonId}`);
      },
      (error: Error) => toast.error(error.message),
    );

  if (!workspace) return null;
  return (
    <WorkspaceView
      workspace={workspace}
      corners={(arrangement, side) => (
        <TopBar
          back={`/lesson/${sitting.lessonId}`}
          backLabel="Back to the lesson"
          title={sitting.title}
          arrangement={arrangement}
          side={side}
        >
          <ClassBar
            workspace={workspace}
            sitting={sitting}
            onJoin={() => setSheet('join')}
            onHandOut={() => setSheet('handout')}
            onEnd={() => setSheet('end')}
          />
        </TopBar>
      )}
    >
      {sheet === 'join' && <JoinDialog sitting={sitting} onClose={close} />}
      {sheet === 'handout' && <HandoutDialog workspace={workspace} title={sitting.title} onClose={close} />}
      <Modal
        title="End this class?"
        description="Students can look, but no longer write. The marks of this class are kept."
        open={sheet === 'end'}
        onOpenChange={close}
      >
        <div className="flex flex-wrap gap-3">
          <Button look="alarm" onClick={() => void end()}>
            End the class
          </Button>
          <Button onClick={close}>Go on teaching</Button>
        </div>
      </Modal>
    </WorkspaceView>
  );
}
