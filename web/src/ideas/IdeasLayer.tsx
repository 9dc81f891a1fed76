import type { MarkOf } from '@doodla/core';
import { isIdea } from '@doodla/core';
import { useMemo, useState } from 'react';
import { IdeaActions } from '../room/ideaActions';
import type { PageDesk } from '../room/pageDesk';
import type { Stage } from '../stage/stage';
import { useStore, useStoreByFrame } from '../store/useStore';
import type { Idea } from './boxOf';
import { boxOf } from './boxOf';
import { IdeaMenu } from './IdeaMenu';
import { IdeaNote } from './IdeaNote';
import { TitleButton } from './TitleButton';
import { WordsDialog } from './WordsDialog';

interface IdeasLayerProps {
  desk: PageDesk;
  stage: Stage;
}

/** What lies over the notes of a page on which ideas are collected: they are dragged together, voted for, and changed. */
export default function IdeasLayer({ desk, stage }: IdeasLayerProps) {
  const page = useStore(desk.pageId);
  const state = useStore(desk.room.classroom!.state);
  const rules = page === undefined ? undefined : state?.ideas[page];
  if (page === undefined || !rules || state?.ended) return null;
  return <Notes key={page} desk={desk} stage={stage} page={page} voting={rules.votes > 0} />;
}

function Notes({ desk, stage, page, voting }: IdeasLayerProps & { page: string; voting: boolean }) {
  const { room } = desk;
  useStoreByFrame(desk.marksChanged);
  const { scale, x, y } = useStore(stage.view);
  const { mine, counts } = useStore(room.votes!.on(page));
  const actions = useMemo(() => new IdeaActions(desk), [desk]);
  const [chosen, setChosen] = useState<string>();
  const [written, setWritten] = useState<Idea>();
  const ideas = actions.marks.filter(isIdea);
  const { mayGroup } = actions;
  const drop = (note: MarkOf<'note'>, clientX: number, clientY: number) => {
    const { left, top } = stage.host.getBoundingClientRect();
    const at = stage.toPage(clientX - left, clientY - top);
    const other = ideas.find((mark) => mark.id !== note.id && isOn(mark, at));
    if (!other) return actions.takeOut(note);
    if (other.kind === 'note') return setWritten(actions.putWith(note, other));
    if (other.group !== null) actions.putInto(note, other.group);
  };
  const open = ideas.find(({ id }) => id === chosen);
  return (
    <div className="absolute top-0 left-0" style={{ transform: `translate(${x}px, ${y}px)` }}>
      {ideas.map((mark) =>
        mark.kind === 'note' ? (
          <IdeaNote
            key={mark.id}
            note={mark}
            scale={scale}
            author={room.nameOf(mark.author)}
            count={counts?.[mark.id]}
            voted={mine.includes(mark.id)}
            voting={voting && !room.isTeacher}
            draggable={mayGroup}
            onChoose={setChosen}
            onDrop={drop}
            onVote={(up) => void room.votes!.vote(page, mark.id, up)}
          />
        ) : (
          room.mayTouch(mark) && (
            <TitleButton key={mark.id} title={mark} scale={scale} onOpen={() => setWritten(mark)} />
          )
        ),
      )}
      {open?.kind === 'note' && (
        <IdeaMenu
          note={open}
          scale={scale}
          actions={actions}
          mayChange={room.mayWrite && room.mayTouch(open)}
          onWrite={() => setWritten(open)}
          onClose={() => setChosen(undefined)}
        />
      )}
      {written && (
        <WordsDialog
          mark={written}
          onWritten={(words) => actions.setWords(written, words)}
          onClose={() => setWritten(undefined)}
        />
      )}
    </div>
  );
}

/** Whether a place is on a note or title. */
function isOn(mark: Idea, at: { x: number; y: number }): boolean {
  const { x, y, width, height } = boxOf(mark);
  return at.x >= x && at.x <= x + width && at.y >= y && at.y <= y + height;
}
