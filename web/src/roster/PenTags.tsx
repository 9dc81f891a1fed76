import { mainPane, STRIDE } from '@doodla/core';
import type { PageDesk } from '../room/pageDesk';
import type { Stage } from '../stage/stage';
import { useStore, useStoreByFrame } from '../store/useStore';
import { penTags } from './penTags';

/** The names of those who are drawing, each beside their pen. */
export default function PenTags({ desk, stage }: { desk: PageDesk; stage: Stage }) {
  const on = useStore(penTags);
  return on ? <Tags desk={desk} stage={stage} /> : null;
}

function Tags({ desk, stage }: { desk: PageDesk; stage: Stage }) {
  useStoreByFrame(desk.ink.changed);
  const { scale, x, y } = useStore(stage.view);
  const page = useStore(desk.pageId);
  if (page === undefined) return null;
  const pane = mainPane(desk.screen.panesOf(page))?.id;
  const strokes = desk.ink.onPage(page, desk.shownSpace).filter((stroke) => stroke.pane === pane);
  return strokes.map(({ id, author, points }) => {
    const person = desk.room.personOf(author);
    const [px, py] = points.slice(-STRIDE);
    if (!person?.name || px === undefined || py === undefined) return null;
    return (
      <span
        key={id}
        aria-hidden
        className="absolute max-w-32 truncate rounded-full bg-paper/90 px-2 text-xs font-bold"
        style={{ left: x + px * scale + 10, top: y + py * scale + 10, color: person.colour }}
      >
        {person.name}
      </span>
    );
  });
}
