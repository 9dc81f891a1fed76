import { pageAnnotations, readAnnotations } from '@doodla/core/glue';
import { useStore } from '@web/store/useStore';
import { sayMark } from '@web/words/marks';
import { FolderOpen, Save, Trash2 } from 'lucide-react';
import { useRef } from 'react';
import { say } from '../../words';
import type { PlacedMark } from '../placedMark';
import type { Tab } from '../tab';
import { saveFile } from '../saveFile';

/** Most things that are listed at once. */
const MOST = 500;

/** All that has been written on the page, also what has no place on it now. */
export function MarkList({ tab }: { tab: Tab }) {
  useStore(tab.changes);
  const marks = tab.log.all().slice(-MOST).reverse();
  return (
    <>
      <h2 className="font-bold">{say('listTitle')}</h2>
      {marks.length === 0 && <p className="text-sm">{say('listEmpty')}</p>}
      <ul className="flex flex-col gap-1">
        {marks.map((placed) => (
          <Row key={placed.glued.mark.id} placed={placed} tab={tab} />
        ))}
      </ul>
      <Files tab={tab} />
    </>
  );
}

function Row({ placed, tab }: { placed: PlacedMark; tab: Tab }) {
  const { mark } = placed.glued;
  const what = sayMark(mark);
  const isGone = placed.matrix === undefined;
  return (
    <li className="flex items-center gap-1">
      <button
        type="button"
        disabled={isGone}
        aria-label={say('goTo', { what })}
        onClick={() => tab.goTo(placed)}
        className="min-h-11 min-w-0 grow rounded-xl px-2 text-start text-sm enabled:hover:bg-board-light"
      >
        <span className="block truncate">{what}</span>
        {isGone && <span className="block text-xs text-chalk">{say('placeGone')}</span>}
      </button>
      <button
        type="button"
        aria-label={say('takeAway', { what })}
        title={say('takeAway', { what })}
        onClick={() => tab.log.perform([{ do: 'remove', mark: mark.id }])}
        className="grid size-11 shrink-0 place-items-center rounded-xl hover:bg-board-light"
      >
        <Trash2 aria-hidden size={18} />
      </button>
    </li>
  );
}

/** Marks of the page as a file of Web Annotations, and back. */
function Files({ tab }: { tab: Tab }) {
  const chosen = useRef<HTMLInputElement>(null);
  const look =
    'flex min-h-11 items-center justify-center gap-2 rounded-xl bg-board-light px-2 text-sm hover:bg-board-hover';
  const save = () => {
    const marks = tab.log.all().map(({ glued }) => glued);
    const file = pageAnnotations(marks, tab.address.get(), document.title);
    saveFile(`${fileName(document.title)}.jsonld`, new Blob([file], { type: 'application/ld+json' }));
  };
  return (
    <div className="grid grid-cols-2 gap-1 border-t border-board-hover pt-3">
      <button type="button" className={look} onClick={save}>
        <Save aria-hidden size={18} />
        {say('save')}
      </button>
      <button type="button" className={look} onClick={() => chosen.current?.click()}>
        <FolderOpen aria-hidden size={18} />
        {say('open')}
      </button>
      <input
        ref={chosen}
        type="file"
        hidden
        accept=".jsonld,.json,application/ld+json,application/json"
        data-testid="annotations-file"
        onChange={({ target }) => {
          const [file] = target.files ?? [];
          target.value = '';
          if (file) void open(tab, file);
        }}
      />
    </div>
  );
}

const fileName = (title: string) =>
  title
    .replace(/[^\p{L}\p{N} ._-]+/gu, ' ')
    .trim()
    .slice(0, 80) || 'marks';

/** Larger files are none of annotations. */
const MOST_BYTES = 50_000_000;

async function open(tab: Tab, file: File): Promise<void> {
  const fresh = () => tab.desk.newMark();
  try {
    if (file.size > MOST_BYTES) throw new RangeError('too large');
    const { marks, elsewhere, unread } = readAnnotations(await file.text(), tab.address.get(), fresh);
    if (marks.length > 0) tab.log.bringIn(marks);
    const said = [say('read', { count: marks.length })];
    if (elsewhere > 0) said.push(say('elsewhere', { count: elsewhere }));
    if (unread > 0) said.push(say('unread', { count: unread }));
    const isNothing = marks.length + elsewhere + unread === 0;
    tab.desk.problem.set(isNothing ? say('noAnnotations') : said.join(' '));
  } catch {
    // No JSON, too large, or a disk that is gone: all that can be done is to choose another file.
    tab.desk.tellProblem(say('noAnnotations'));
  }
}
