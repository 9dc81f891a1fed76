import type { Change, Mark } from '@doodla/core';
import { packMark, patchMark, SCREEN_PAGE_WIDTH, transformPatch, unpackMark } from '@doodla/core';
import type { ViewState } from '@doodla/core/follow';
import { Store } from '@doodla/core/client';
import { MarkLayer } from '@web/desk/markLayer';
import { LiveScreen } from '@web/live/liveScreen';
import { Presenter } from '@web/screen/presenter';
import type { ScreenSource } from '@web/screen/sources';
import type { Ask, Report, TabPlaces } from '../shared/messages';
import type { ClassLink } from './classLink';
import { panesIn } from './panesIn';
import type { TabLink } from './tabLink';

/** How long it is remembered where things were: as long as a frame may take from the glass to here; milliseconds. */
const REMEMBERED_MS = 2000;
/** How often wet ink of the class goes to the tab at most, milliseconds. */
const WET_MS = 33;

/**
 * Shows a tab to a class. The page itself says where its parts are; what the class writes goes to the tab and lies on the page
 * there, what is written in the tab goes into the class.
 */
export class Showing {
  readonly isOn = new Store(true);
  private readonly presenter: Presenter;
  private readonly screen = new LiveScreen();
  /** Where things were, the last of them newest. */
  private places: TabPlaces[] = [];
  /** Views by the addresses of the pages that they are of. */
  private readonly views = new Map<string, number>();
  /** Width of the window in which each view was first seen, CSS pixels. */
  private readonly widths: number[] = [];
  /** What the tab knows of the class's marks. */
  private readonly sent = new Map<string, Mark>();
  /** Marks of the tab that are on the page of the class, by their ids. */
  private readonly own = new Set<string>();
  /** Marks of the tab's page, by their ids, as they are now. */
  private readonly written = new Map<string, Mark>();
  /** The page of the class that is the tab's now. */
  private page: string | undefined;
  private wasWet = false;
  /** Until when the tab gets no more wet ink: it has half of its time for itself. */
  private wetFrom = 0;
  private readonly stops: (() => void)[];
  private readonly wetTimer: ReturnType<typeof setInterval>;

  constructor(
    private readonly link: ClassLink,
    sitting: string,
    private readonly tab: TabLink,
    source: ScreenSource,
  ) {
    const layer = new MarkLayer(link.log);
    const marksChanged = new Store(0);
    const { screen } = this;
    this.presenter = new Presenter(
      {
        connection: link.line,
        layers: [layer],
        marksChanged,
        pages: link.pages,
        // Views are known by their addresses, not by how they look.
        pictures: { load: () => Promise.resolve(undefined) },
        screen,
        sitting,
        tellProblem: (sentence) => link.problem.set(sentence),
        // What is kept under the marks must not have them in it: they may be wiped off later.
        upload: async (picture) => link.upload((await tab.plain()) ?? picture),
      },
      source,
      () => this.end(),
      (width) => this.viewOf(width, source),
    );
    // What the tab asks of the background is heard here too, and an error here would be its answer.
    const hear = (message: Report | Ask, { tab: from }: chrome.runtime.MessageSender) => {
      if (from?.id === tab.id && 'report' in message) this.hear(message);
      return false;
    };
    chrome.runtime.onMessage.addListener(hear);
    this.stops = [
      () => chrome.runtime.onMessage.removeListener(hear),
      link.log.touched.subscribe((change) => {
        layer.update(change);
        marksChanged.set(marksChanged.get() + 1);
        this.tellGuests();
      }),
      screen.state.subscribe(() => this.turned()),
    ];
    this.wetTimer = setInterval(() => this.tellWet(), WET_MS);
    const gone = () => tab.tell({ tell: 'report', on: false });
    window.addEventListener('pagehide', gone);
    this.stops.push(() => window.removeEventListener('pagehide', gone));
    tab.tell({ tell: 'report', on: true });
  }

  /** Begins. Throws LiveError where it is not allowed. */
  async start(): Promise<void> {
    await this.link.opened();
    await this.presenter.start();
  }

  stop(): Promise<void> {
    return this.presenter.stop();
  }

  private end(): void {
    clearInterval(this.wetTimer);
    for (const stop of this.stops) stop();
    this.tab.tell({ tell: 'report', on: false });
    this.isOn.set(false);
  }

  private hear(report: Report): void {
    if (report.report === 'marks') return this.takeMarks(report.put.map(unpackMark), report.gone);
    const since = report.places.at - REMEMBERED_MS;
    this.places = [...this.places.filter(({ at }) => at > since), report.places];
  }

  /** Where the content of the frame that is seen now lies in it, pixels of the frame. */
  private viewOf(width: number, source: ScreenSource): ViewState | undefined {
    const seenAt = shownAt(source);
    const places = this.places.findLast(({ at }) => at <= seenAt) ?? this.places[0];
    if (!places) return undefined;
    const { address } = places;
    const view = this.views.get(address) ?? this.views.size;
    this.views.set(address, view);
    this.widths[view] ??= places.width;
    return { view, panes: panesIn(places, width, this.widths[view]), certain: true };
  }

  /** The page of the view that is seen, and how wide the tab was when it was first seen. */
  private get shown(): { page: string; width: number } | undefined {
    const page = this.screen.state.get()?.page;
    const last = this.places.at(-1);
    const view = last && this.views.get(last.address);
    return page === undefined || view === undefined ? undefined : { page, width: this.widths[view]! };
  }

  /** Another page of the class is that of the tab now: each gets what the other has. */
  private turned(): void {
    const { shown } = this;
    if (!shown || shown.page === this.page) return;
    this.page = shown.page;
    this.tab.tell({ tell: 'guests', put: [], gone: [...this.sent.keys()] });
    this.sent.clear();
    void this.link.log.need(shown.page).then(() => this.tellGuests());
    this.takeMarks([...this.written.values()], []);
  }

  /** Takes what is written in the tab onto the page of the class. */
  private takeMarks(put: readonly Mark[], gone: readonly string[]): void {
    for (const mark of put) this.written.set(mark.id, mark);
    for (const id of gone) this.written.delete(id);
    const { shown } = this;
    const author = this.link.log.actor?.id;
    if (!shown || author === undefined) return;
    const { marks } = this.link.log.state;
    const k = SCREEN_PAGE_WIDTH / shown.width;
    const own = { page: shown.page, author, space: 'class', pane: 1 } as const;
    const adds = put.map((mark): Mark => ({ ...enlarged(mark, k), ...own }));
    const old = [...put.map(({ id }) => id), ...gone].filter((id) => marks.has(id));
    for (const { id } of adds) this.own.add(id);
    const changes: Change[] = [
      ...old.map((mark): Change => ({ do: 'remove', mark })),
      ...adds.map((mark): Change => ({ do: 'add', mark })),
    ];
    if (changes.length > 0) this.link.log.perform(changes);
  }

  /** Tells the tab what others have written on its page. */
  private tellGuests(): void {
    const { shown } = this;
    if (!shown) return;
    const k = shown.width / SCREEN_PAGE_WIDTH;
    const put: Mark[] = [];
    const there = new Set<string>();
    for (const mark of this.link.log.state.marks.values()) {
      if (mark.page !== shown.page || this.own.has(mark.id)) continue;
      there.add(mark.id);
      if (this.sent.get(mark.id) === mark) continue;
      this.sent.set(mark.id, mark);
      put.push(enlarged(mark, k));
    }
    const gone = [...this.sent.keys()].filter((id) => !there.has(id));
    for (const id of gone) this.sent.delete(id);
    if (put.length + gone.length > 0) this.tab.tell({ tell: 'guests', put: put.map(packMark), gone });
  }

  private tellWet(): void {
    const { shown } = this;
    const strokes = shown ? this.link.ink.onPage(shown.page, 'class') : [];
    if ((strokes.length === 0 && !this.wasWet) || performance.now() < this.wetFrom) return;
    this.wasWet = strokes.length > 0;
    const k = (shown?.width ?? SCREEN_PAGE_WIDTH) / SCREEN_PAGE_WIDTH;
    const ink = strokes.map(({ points, style }) => ({
      points: points.map((value, i) => (i % 4 < 2 ? value * k : value)),
      style: { ...style, width: style.width * k },
    }));
    const began = performance.now();
    const rest = () => (this.wetFrom = 2 * performance.now() - began);
    this.wetFrom = Infinity;
    // A tab that is gone or was loaded anew shows what comes next.
    this.tab.showWet(ink).then(rest, rest);
  }
}

function enlarged(mark: Mark, k: number): Mark {
  return k === 1 ? mark : patchMark(mark, transformPatch(mark, { kind: 'resize', fx: k, fy: k, x: 0, y: 0 }));
}

/** When the frame that is seen now was taken from the glass, milliseconds since 1970-01-01 UTC. */
function shownAt({ picture }: ScreenSource): number {
  return frameTimes.get(picture) ?? Date.now();
}

const frameTimes = new WeakMap<object, number>();

/** Notes of each frame of a source when it was taken, as far as the browser knows (HTMLVideoElement.requestVideoFrameCallback). */
export function noteFrames({ picture }: ScreenSource): void {
  if (!(picture instanceof HTMLVideoElement)) return;
  const note: VideoFrameRequestCallback = (now, { captureTime }) => {
    frameTimes.set(picture, performance.timeOrigin + (captureTime ?? now));
    if (picture.srcObject) picture.requestVideoFrameCallback(note);
  };
  picture.requestVideoFrameCallback(note);
}
