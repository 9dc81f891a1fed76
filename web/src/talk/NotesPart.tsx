import { Bold, Heading, Italic, List, ListOrdered, Redo2, Underline, Undo2 } from 'lucide-react';
import type { EditorState } from 'prosemirror-state';
import { EditorView } from 'prosemirror-view';
import type { ReactNode } from 'react';
import { useEffect, useRef, useState } from 'react';
import type { Room } from '../room/room';
import { useStore } from '../store/useStore';
import { classes } from '../ui/classes';
import { t } from '../words';
import './notes.css';
import { NotesClient } from './notesClient';
import type { NoteCommand } from './notesKeys';
import { hasLook, isIn, NOTE_COMMANDS, NOTE_PLUGINS } from './notesKeys';

const BUTTONS: readonly [NoteCommand, string, ReactNode][] = [
  ['heading', t('talk.heading'), <Heading key="heading" aria-hidden size={18} />],
  ['bold', t('common.bold'), <Bold key="bold" aria-hidden size={18} />],
  ['italic', t('common.italic'), <Italic key="italic" aria-hidden size={18} />],
  ['underline', t('common.underline'), <Underline key="underline" aria-hidden size={18} />],
  ['bullets', t('ui.bullets'), <List key="bullets" aria-hidden size={18} />],
  ['numbers', t('ui.numbers'), <ListOrdered key="numbers" aria-hidden size={18} />],
  ['undo', t('common.undo'), <Undo2 key="undo" aria-hidden size={18} />],
  ['redo', t('talk.redo'), <Redo2 key="redo" aria-hidden size={18} />],
];

/** The class's notes, to be read, and to be written by the teacher and whoever they name. */
export default function NotesPart({ room }: { room: Room }) {
  const rules = useStore(room.rules);
  const state = useStore(room.classroom!.state);
  const me = room.target.actor?.id;
  const mayWrite = !state?.ended && (room.isTeacher || (me !== undefined && rules.scribes.includes(me)));
  const { host, view, editor } = useNotes(room, mayWrite);
  const run = (command: NoteCommand) => {
    if (!view) return;
    NOTE_COMMANDS[command](view.state, view.dispatch, view);
    view.focus();
  };
  return (
    <div className="flex min-h-0 grow flex-col">
      {mayWrite && editor && (
        <div role="toolbar" aria-label={t('talk.lookOfWords')} className="flex flex-wrap px-1">
          {BUTTONS.map(([command, label, icon]) => (
            <button
              key={command}
              type="button"
              aria-label={label}
              title={label}
              {...(isShown(command) && { 'aria-pressed': isOn(editor, command) })}
              onMouseDown={(event) => event.preventDefault()}
              onClick={() => run(command)}
              className={classes(
                'grid size-11 place-items-center rounded-xl hover:bg-paper-dim',
                isShown(command) && isOn(editor, command) && 'bg-paper-dim font-bold outline-2 outline-board',
              )}
            >
              {icon}
            </button>
          ))}
        </div>
      )}
      {!mayWrite && editor?.doc.textContent === '' && (
        <p className="px-4 py-2 text-ink-soft">{t('talk.noNotesYet')}</p>
      )}
      <div ref={host} className="class-notes min-h-0 grow overflow-auto px-4 pb-4" />
    </div>
  );
}

const isShown = (command: NoteCommand) => command !== 'undo' && command !== 'redo';

function isOn(state: EditorState, command: NoteCommand): boolean {
  switch (command) {
    case 'heading':
      return isIn(state, 'heading');
    case 'bullets':
      return isIn(state, 'bullet_list');
    case 'numbers':
      return isIn(state, 'ordered_list');
    case 'undo':
    case 'redo':
      return false;
    default:
      return hasLook(state, command);
  }
}

/** The box of the notes, as long as it is there. */
function useNotes(room: Room, mayWrite: boolean) {
  const host = useRef<HTMLDivElement>(null);
  const [view, setView] = useState<EditorView>();
  const [editor, setEditor] = useState<EditorState>();
  const may = useRef(mayWrite);
  useEffect(() => {
    let made: EditorView | undefined;
    const client = new NotesClient(room.sitting!, room.connection, {
      plugins: NOTE_PLUGINS,
      tellProblem: room.tellProblem,
      onState(state) {
        setEditor(state);
        if (made) return made.updateState(state);
        made = new EditorView(host.current, {
          state,
          editable: () => may.current,
          attributes: {
            role: 'textbox',
            'aria-multiline': 'true',
            'aria-label': t('talk.notes'),
            class: 'min-h-full outline-none',
          },
          dispatchTransaction: (transaction) => client.dispatch(transaction),
        });
        setView(made);
      },
    });
    return () => {
      client.close();
      made?.destroy();
      setView(undefined);
    };
  }, [room]);
  useEffect(() => {
    may.current = mayWrite;
    view?.setProps({});
  }, [mayWrite, view]);
  return { host, view, editor };
}
