import type { Mark } from '@doodla/core';
import { seatSpace, STUDENT_COLOURS } from '@doodla/core';
import type { LogClient } from '@doodla/core/client';
import { Eraser, Pen, Undo2 } from 'lucide-react';
import { useEffect, useState } from 'react';
import type { PageDesk } from '../room/pageDesk';
import type { Room } from '../room/room';
import { useWorkspace } from '../room/useWorkspace';
import type { Stage } from '../stage/stage';
import { pageOn } from '../roster/answeredCopies';
import { useStore } from '../store/useStore';
import { Button } from '../ui/Button';
import { IconButton } from '../ui/IconButton';
import { t } from '../words';
import { StageView } from './StageView';

/** What each of them sees, which knows of their last stroke before the server does. */
type SeatLogs = Map<number, Pick<LogClient, 'state'>>;

/** Students who share this screen: each has a copy of the page beside the others', with a pen and colour of their own. */
export default function SeatsView({ desk }: { desk: PageDesk }) {
  const { room } = desk;
  const count = useStore(room.seats);
  const page = useStore(desk.pageId);
  const [logs] = useState<SeatLogs>(() => new Map());
  if (count === 0) return null;
  const seats = Array.from({ length: count }, (_, i) => i + 1);
  const keep = () => {
    if (page === undefined) return;
    const copies = seats.flatMap((seat) => {
      const marks = marksOf(logs.get(seat) ?? room.target, page, seat);
      if (marks.length === 0) return [];
      const title = t('roster.seat', { number: seat });
      return [{ title, marks: pageOn(desk, page, { space: seatSpace(seat), marks }) }];
    });
    desk.pageActions.keepCopies(page, copies);
    room.tellNotice(t('roster.copiesAreKept', { count: copies.length }));
    room.seats.set(0);
  };
  return (
    <div
      role="dialog"
      aria-label={t('roster.seats')}
      className="absolute inset-0 z-40 flex flex-col bg-board text-paper"
    >
      <div className="flex justify-center gap-3 p-2">
        <Button look="onBoard" onClick={keep}>
          {t('roster.seatsToPages')}
        </Button>
        <Button look="onBoard" onClick={() => room.seats.set(0)}>
          {t('roster.seatsEnd')}
        </Button>
      </div>
      <div className="grid min-h-0 grow grid-cols-2 gap-2 p-2 pt-0">
        {seats.map((seat) => (
          <Seat key={seat} room={room} seat={seat} logs={logs} />
        ))}
      </div>
    </div>
  );
}

function marksOf({ state }: Pick<LogClient, 'state'>, page: string, seat: number): Mark[] {
  return [...state.marks.values()].filter((mark) => mark.page === page && mark.space === seatSpace(seat));
}

interface SeatProps {
  room: Room;
  seat: number;
  logs: SeatLogs;
}

/** One student's part of the screen. */
function Seat({ room, seat, logs }: SeatProps) {
  const colour = STUDENT_COLOURS[seat - 1]!;
  const workspace = useWorkspace({ ...room.options, seat, colour });
  useEffect(() => {
    if (workspace) logs.set(seat, workspace.main.target);
    return () => void logs.delete(seat);
  }, [logs, seat, workspace]);
  return (
    <section
      data-view
      aria-label={t('roster.seat', { number: seat })}
      className="relative min-h-0 overflow-hidden rounded-2xl"
    >
      {workspace && <SeatDesk desk={workspace.main} />}
    </section>
  );
}

function SeatDesk({ desk }: { desk: PageDesk }) {
  const { penCase, target } = desk;
  const [stage, setStage] = useState<Stage>();
  const { tool } = useStore(penCase);
  const { canUndo } = useStore(target.status);
  useEffect(() => desk.takeTool('pen'), [desk]);
  return (
    <>
      <StageView desk={desk} stage={stage} onStage={setStage} />
      <div
        role="toolbar"
        data-bar="pages"
        className="absolute bottom-2 left-1/2 z-20 flex -translate-x-1/2 rounded-2xl bg-board p-0.5 text-paper shadow-xl"
      >
        <IconButton
          label={t('tools.pen')}
          active={tool === 'pen'}
          icon={<Pen aria-hidden />}
          onClick={() => desk.takeTool('pen')}
        />
        <IconButton
          label={t('tools.eraser')}
          active={tool === 'eraser'}
          icon={<Eraser aria-hidden />}
          onClick={() => desk.takeTool('eraser')}
        />
        <IconButton
          label={t('common.undo')}
          disabled={!canUndo}
          icon={<Undo2 aria-hidden />}
          onClick={() => target.undo()}
        />
      </div>
    </>
  );
}
