import type { Mark } from '@doodla/core';
import { MAX_TEXT_LENGTH } from '@doodla/core';
import { useStore } from '@web/store/useStore';
import type { TextEdit } from '@web/desk/desk';
import { useEffect, useState } from 'react';
import type { Tell } from '../../shared/messages';
import { ask } from '../../shared/messages';
import { say } from '../../words';
import type { Tab } from '../tab';

/** Room for a few lines while one types; the text itself takes what it needs. */
const LEAST_HEIGHT = 64;

/**
 * Where one types on the page: a frame of the extension's own, since what is typed in the page itself its scripts could read letter
 * by letter. What has been typed is put on the page when it is done, or when one goes on with something else.
 */
export function TypingBox({ tab }: { tab: Tab }) {
  const edit = useStore(tab.desk.textEdit);
  return edit ? <Box key={edit.common.id} edit={edit} tab={tab} /> : null;
}

function Box({ edit, tab }: { edit: TextEdit; tab: Tab }) {
  const isReady = useTyping(edit, tab);
  const height =
    edit.mark?.kind === 'note' ? edit.mark.height : Math.max(LEAST_HEIGHT, styleOf(edit, tab).size * 3);
  if (!isReady) return null;
  return (
    <iframe
      title={say('typeHere')}
      src={chrome.runtime.getURL('typing.html')}
      className="pointer-events-auto absolute rounded-lg border-2 border-dashed border-board bg-transparent"
      style={{ left: edit.x, top: edit.y, width: edit.width, height, colorScheme: 'light' }}
    />
  );
}

/** Lets the frame know what it is for, and hears what is typed in it. Returns whether the frame may come. */
function useTyping(edit: TextEdit, tab: Tab): boolean {
  const [isReady, setReady] = useState(false);
  useEffect(() => {
    let text = edit.mark?.text ?? '';
    const hear = (message: Tell) => {
      if (message.tell !== 'typed') return;
      text = message.text;
      tab.keepAhead(edit.common.id, typedMark(edit, text.slice(0, MAX_TEXT_LENGTH), tab));
      if (message.isDone) tab.desk.textEdit.set(undefined);
    };
    chrome.runtime.onMessage.addListener(hear);
    const { font, size, colour, bold, italic } = styleOf(edit, tab);
    const typing = {
      text,
      width: edit.width,
      look: { font, size, colour, bold, italic },
      label: say('typeHere'),
    };
    ask({ ask: 'type', typing }).then(
      () => setReady(true),
      () => {
        tab.desk.textEdit.set(undefined);
        tab.desk.tellProblem(say('noText'));
      },
    );
    return () => {
      chrome.runtime.onMessage.removeListener(hear);
      put(edit, text.slice(0, MAX_TEXT_LENGTH), tab);
    };
  }, [edit, tab]);
  return isReady;
}

function styleOf({ mark }: TextEdit, { desk }: Tab) {
  const { text } = desk.penCase.get();
  if (mark?.kind === 'note') return { ...text, font: mark.style.font, size: 20, colour: '#000000' };
  return mark?.style ?? text;
}

/** What is typed as the mark that it becomes; undefined where nothing of it is left. */
function typedMark({ mark, x, y, width, common }: TextEdit, text: string, { desk }: Tab): Mark | undefined {
  if (mark?.kind === 'note') return { ...mark, text };
  if (text.trim() === '') return undefined;
  const style = desk.penCase.get().text;
  return mark ? { ...mark, text } : { ...common, kind: 'text', x, y, width, rotation: 0, style, text };
}

/** Puts what was typed on the page; a text of which nothing is left is taken away. */
function put(edit: TextEdit, text: string, tab: Tab): void {
  const { mark } = edit;
  const typed = typedMark(edit, text, tab);
  if (mark && text === mark.text) tab.keepAhead(mark.id, undefined);
  else if (!mark && typed) tab.log.perform([{ do: 'add', mark: typed }]);
  else if (mark && !typed) tab.log.perform([{ do: 'remove', mark: mark.id }]);
  else if (mark) tab.log.perform([{ do: 'patch', mark: mark.id, set: { text } }]);
  else tab.keepAhead(edit.common.id, undefined);
}
