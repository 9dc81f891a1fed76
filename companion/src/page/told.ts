import type { InkStyle, Mark } from '@doodla/core';
import { packMark, patchMark, transformPatch, unpackMark } from '@doodla/core';
import type { Report, TabAbout, Tell, Told } from '../shared/messages';
import { copyOf } from './pageCopy';
import { pictureOfTab } from './pictures';
import type { Tab } from './tab';
import { ScrolledParts } from './tabPlaces';
import { pictureInSight, pictureOfPage } from './wholePage';

/** Does what the extension's own pages ask of a page, and reports to them. Returns what ends it. */
export function answerTold(tab: Tab): () => void {
  const reports = new Reports(tab);
  const hear = (message: Tell, _: unknown, reply: (answer: unknown) => void) => {
    switch (message.tell) {
      case 'about':
        reply(about());
        return false;
      case 'marks':
        reply(shownMarks(tab).map(packMark) satisfies Told['marks']);
        return false;
      case 'copy':
        reply(copyOf(document, tab.host.elements));
        return false;
      case 'picture':
        void (message.of === 'sight' ? pictureInSight(tab) : pictureOfPage(tab)).then(reply, () =>
          reply(undefined),
        );
        return true;
      case 'plain':
        void pictureOfTab(tab).then((taken) => reply(taken?.data));
        return true;
      case 'report':
        reports.set(message.on);
        return false;
      case 'guests':
        reports.take(message.put.map(unpackMark), message.gone);
        return false;
      case 'guest ink':
        tab.guestInk.set(message.ink.map(({ points, style }) => ({ points, style: style as InkStyle })));
        // What is drawn in this frame has been drawn before the next.
        requestAnimationFrame(() => requestAnimationFrame(() => reply(true)));
        return true;
      case 'toggle':
      case 'typed':
        return false;
    }
  };
  chrome.runtime.onMessage.addListener(hear);
  return () => {
    reports.set(false);
    chrome.runtime.onMessage.removeListener(hear);
  };
}

function about(): TabAbout {
  const { clientWidth: width } = document.documentElement;
  return { title: document.title, address: location.href, width };
}

const shownMarks = (tab: Tab): Mark[] => [...tab.log.state.marks.values()];

/** Tells a class what this page is like, as it changes, and shows what the class writes on it. */
class Reports {
  private readonly parts = new ScrolledParts();
  private stops: (() => void)[] = [];
  private frame = 0;

  constructor(private readonly tab: Tab) {}

  set(on: boolean): void {
    for (const stop of this.stops) stop();
    this.stops = [];
    cancelAnimationFrame(this.frame);
    this.frame = 0;
    if (!on) return this.tab.guests.clear();
    const { log, changes } = this.tab;
    const place = () => this.placeSoon();
    window.addEventListener('scroll', place, { capture: true, passive: true });
    window.addEventListener('resize', place);
    this.stops = [
      () => window.removeEventListener('scroll', place, { capture: true }),
      () => window.removeEventListener('resize', place),
      changes.subscribe(place),
      this.tab.address.subscribe(place),
      log.changed.subscribe((ids) => this.tellMarks(ids)),
    ];
    this.tellPlaces();
    this.tellMarks(new Set(log.state.marks.keys()));
  }

  /** Marks of a class lie where they would if nothing was scrolled; here they are glued to what lies there. */
  take(put: readonly Mark[], gone: readonly string[]): void {
    const placed = put.map((mark) => {
      const { x, y } =
        mark.pane === undefined || mark.pane < 2 ? { x: 0, y: 0 } : this.parts.scrollOf(mark.pane);
      return patchMark(mark, transformPatch(mark, { kind: 'move', dx: -x, dy: -y }));
    });
    this.tab.guests.lay(placed, gone);
  }

  private placeSoon(): void {
    this.frame ||= requestAnimationFrame(() => {
      this.frame = 0;
      this.tellPlaces();
    });
  }

  private tellPlaces(): void {
    send({ report: 'places', places: this.tab.host.aside(() => this.parts.places(document)) });
  }

  private tellMarks(ids: ReadonlySet<string>): void {
    const { marks } = this.tab.log.state;
    const there = [...ids].filter((id) => marks.has(id));
    const put = there.map((id) => packMark(marks.get(id)!));
    send({ report: 'marks', put, gone: [...ids].filter((id) => !marks.has(id)) });
  }
}

function send(report: Report): void {
  // Nobody hears it where the class's page has just been closed.
  chrome.runtime.sendMessage(report).catch(() => undefined);
}
