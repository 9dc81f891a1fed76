import '../words';
import { createRoot } from 'react-dom/client';
import type { Tell } from '../shared/messages';
import { hearKeys } from './keys';
import { needUsualFaces } from './nearFaces';
import { openPenCase } from './tabPenCase';
import { Tab } from './tab';
import { answerTold } from './told';
import { Attention } from './ui/attention';
import { CompanionView } from './ui/CompanionView';
import { openHolderPlace } from './holderPlace';

/** What is left in the page's own place for the extension, so that it is not begun twice. */
interface Running {
  /** What lies over the page; undefined while nothing does. */
  readonly tab: Tab | undefined;
  toggle(): void;
}

const here = globalThis as typeof globalThis & { doodlaCompanion?: Running };

/** The companion over the page, and what puts it away. */
interface Begun {
  tab: Tab;
  end(): void;
}

async function begin(): Promise<Begun> {
  const [penCase, place] = await Promise.all([openPenCase(), openHolderPlace()]);
  const tab = new Tab(penCase);
  const view = document.createElement('div');
  tab.host.root.append(view);
  const root = createRoot(view);
  const putAway = () => {
    stopKeys();
    stopAnswers();
    root.unmount();
    tab.close();
  };
  const stopKeys = hearKeys(tab, place);
  const stopAnswers = answerTold(tab);
  const close = () => here.doodlaCompanion?.toggle();
  root.render(<CompanionView tab={tab} place={place} attention={new Attention()} onClose={close} />);
  // Without these letters others stand in for them.
  needUsualFaces().catch(() => undefined);
  await tab.open();
  return { tab, end: () => void tab.settled().finally(putAway) };
}

function run(): Running {
  let tab: Tab | undefined;
  const start = async () => {
    const begun = await begin();
    tab = begun.tab;
    return begun;
  };
  let running: Promise<Begun> | undefined = start();
  return {
    get tab() {
      return tab;
    },
    toggle() {
      const before = running;
      if (before) tab = undefined;
      running = before ? undefined : start();
      // What could not begin need not end.
      before?.then(({ end }) => end()).catch(() => undefined);
    },
  };
}

if (!here.doodlaCompanion) {
  here.doodlaCompanion = run();
  chrome.runtime.onMessage.addListener((message: Tell) => {
    if (message.tell === 'toggle') here.doodlaCompanion!.toggle();
  });
}
