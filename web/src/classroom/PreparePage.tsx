import { useQuery } from '@tanstack/react-query';
import { format } from 'date-fns';
import { History, Presentation, Share } from 'lucide-react';
import { Popover } from 'radix-ui';
import { useEffect, useState } from 'react';
import { Link, useNavigate, useParams, useSearchParams } from 'react-router';
import { toast } from 'sonner';
import type { SittingSummary } from '../api/lessons';
import { lessonQuery, startSitting } from '../api/lessons';
import { HandoutDialog } from '../handout/HandoutDialog';
import { BringInMenu } from '../material/BringInMenu';
import { Button } from '../ui/Button';
import { useWorkspace } from '../workspace/useWorkspace';
import type { Workspace } from '../workspace/workspace';
import { JUST_STARTED } from './TeachPage';
import { CannotOpen } from './CannotOpen';
import { TopBar } from './TopBar';
import { WorkspaceView } from './WorkspaceView';

/** A lesson between classes: what is written here is prepared, for every class. */
export default function PreparePage() {
  const { lesson = '' } = useParams();
  const [params] = useSearchParams();
  const [startPage] = useState(() => params.get('page'));
  const query = useQuery(lessonQuery(lesson));
  const workspace = useWorkspace({ lesson, ...(startPage !== null && { startPage }) });
  const navigate = useNavigate();
  const [handingOut, setHandingOut] = useState(false);
  useRememberedPage(workspace);

  if (query.isError) return <CannotOpen what="lesson" reason={query.error.message} />;
  const title = query.data?.title ?? '';
  const start = () =>
    startSitting(lesson, `${title}, ${format(new Date(), 'd MMM yyyy, HH:mm')}`).then(
      ({ id }) => void navigate(`/sitting/${id}`, { state: JUST_STARTED }),
      (error: Error) => toast.error(error.message),
    );
  if (!workspace) return null;
  return (
    <WorkspaceView
      workspace={workspace}
      corners={(arrangement, side) => (
        <TopBar back="/" backLabel="Back to your lessons" title={title} arrangement={arrangement} side={side}>
          <BringInMenu workspace={workspace} />
          <SittingsMenu sittings={query.data?.sittings ?? []} />
          <Button look="onBoard" icon={<Share aria-hidden size={18} />} onClick={() => setHandingOut(true)}>
            Hand out
          </Button>
          <Button
            look="onBoard"
            icon={<Presentation aria-hidden size={18} />}
            className="!border-chalk !bg-chalk !text-board"
            onClick={() => void start()}
          >
            Start class
          </Button>
        </TopBar>
      )}
    >
      {handingOut && (
        <HandoutDialog workspace={workspace} title={title} onClose={() => setHandingOut(false)} />
      )}
    </WorkspaceView>
  );
}

/** Keeps the shown page in the address, so that a reload comes back to it. */
function useRememberedPage(workspace: Workspace | undefined): void {
  const [, setParams] = useSearchParams();
  useEffect(
    () =>
      workspace?.pageId.subscribe(() => {
        const page = workspace.pageId.get();
        if (page !== undefined) setParams({ page }, { replace: true });
      }),
    [workspace, setParams],
  );
}

function SittingsMenu({ sittings }: { sittings: readonly SittingSummary[] }) {
  if (sittings.length === 0) return null;
  return (
    <Popover.Root>
      <Popover.Trigger asChild>
        <Button look="onBoard" icon={<History aria-hidden size={18} />}>
          Classes ({sittings.length})
        </Button>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          sideOffset={8}
          className="z-40 max-h-[70dvh] w-80 overflow-auto rounded-2xl border-2 border-board-line bg-paper p-2 shadow-xl"
        >
          <ul>
            {sittings.map(({ id, title, openedAt, endedAt }) => (
              <li key={id}>
                <Link
                  to={`/sitting/${id}`}
                  className="block min-h-11 rounded-xl px-3 py-2 hover:bg-paper-dim"
                >
                  <span className="block font-bold">{title}</span>
                  <span className="text-sm text-ink-soft">
                    {format(openedAt, 'd MMM yyyy, HH:mm')} ·{' '}
                    {endedAt === null ? 'open, go on' : 'ended, look'}
                  </span>
                </Link>
              </li>
            ))}
          </ul>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
