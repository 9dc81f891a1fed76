import type { Answers, Ask, Reply, Typing } from '../shared/messages';
import { pictureOf } from './captures';
import { sayAtButton } from './tabs';
import { openClassPage, openPicture, picturedAs } from './ownPages';

/** What is to be typed, by tab, until its frame asks for it. */
const typings = new Map<number, Typing>();

type Answerer<Kind extends Ask['ask']> = (
  message: Extract<Ask, { ask: Kind }>,
  tab: chrome.tabs.Tab,
) => Promise<Answers[Kind]> | Answers[Kind];

const ANSWERERS: { [Kind in Ask['ask']]: Answerer<Kind> } = {
  picture: (_, tab) => pictureOf(tab),
  type({ typing }, tab) {
    typings.set(tab.id!, typing);
    return undefined;
  },
  typing(_, tab) {
    const typing = typings.get(tab.id!);
    // Given once: a page could put the frame into itself, but not what is typed.
    typings.delete(tab.id!);
    return typing;
  },
  async typed({ text, isDone }, tab) {
    await chrome.tabs.sendMessage(tab.id!, { tell: 'typed', text, isDone }, { frameId: 0 });
    return undefined;
  },
  async barred({ why }, tab) {
    await sayAtButton(tab.id!, why);
    return undefined;
  },
  async class(_, tab) {
    await openClassPage(tab.id!);
    return undefined;
  },
  async show({ pictured }, tab) {
    await openPicture(pictured, tab);
    return undefined;
  },
  pictured: ({ id }) => picturedAs(id),
};

/** Answers what pages and frames of the extension ask. */
export function answerAsks(): void {
  chrome.runtime.onMessage.addListener((message: Ask, sender, reply: (answer: Reply<unknown>) => void) => {
    const { tab } = sender;
    if (sender.id !== chrome.runtime.id || !tab || !Object.hasOwn(ANSWERERS, message.ask)) return false;
    void answer(message, tab).then(reply);
    return true;
  });
}

async function answer(message: Ask, tab: chrome.tabs.Tab): Promise<Reply<unknown>> {
  try {
    const answerer = ANSWERERS[message.ask] as Answerer<Ask['ask']>;
    return { answer: await answerer(message, tab) };
  } catch (error) {
    return { problem: error instanceof Error ? error.message : String(error) };
  }
}
