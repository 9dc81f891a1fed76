import type { Mark, PlacedWord, Rect } from '@doodla/core';
import type { Glue } from '@doodla/core/glue';
import { addressOf } from '@doodla/core/glue';
import type { Gesture, PenPoint, RunningGesture } from '@web/desk/gesture';
import type { PenCase } from '@web/desk/penCase';
import { fontArrived } from '@web/canvas/markPainter';
import type { Preview, WetInk } from '@web/canvas/preview';
import { StageInput } from '@web/stage/stageInput';
import { Store } from '@doodla/core/client';
import { ask } from '../shared/messages';
import { say } from '../words';
import { Gluing } from './gluing';
import { takeHold } from './hold';
import { Host } from './host';
import type { Wet } from './inkSheet';
import { InkSheet } from './inkSheet';
import { KeptMarks } from './keptMarks';
import type { LayoutChange } from './layoutWatch';
import { LayoutWatch } from './layoutWatch';
import type { Ground } from './pageLog';
import { PageLog } from './pageLog';
import type { PlacedMark } from './placedMark';
import { barsOf, isDark } from './pageFace';
import { PageWords } from './pageWords';
import { pourAt, pictureOfTab } from './pictures';
import { shownWordsAt } from './shownWords';
import { TabDesk } from './tabDesk';
import { isTabTool } from './toolIds';
import { TAB_TOOLS } from './tools';

/** Pictures on a page of the web are none of a lesson's. */
const NO_PICTURES = { get: () => undefined };

/** So much longer than it was looked where things lie, it is not looked again for what scripts change. */
const RESTS = 6;
const LONGEST_REST_MS = 250;

/** A page of the web in its tab, with all that lies over it. */
export class Tab {
  readonly host = new Host();
  readonly log: PageLog;
  /** What a class has written on the page, as long as it is shown to it. */
  readonly guests: PageLog;
  /** What somebody in the class is drawing on it now. */
  readonly guestInk = new Store<readonly WetInk[]>([]);
  readonly desk: TabDesk;
  /** The address under which the marks are kept. */
  readonly address = new Store(addressOf(location.href));
  /** Counts changes of marks and of where they lie, for whoever lists them. */
  readonly changes = new Store(0);
  private readonly words = new PageWords();
  private readonly gluing = new Gluing(this.words, document);
  private readonly catcher = document.createElement('div');
  private readonly sheet: InkSheet;
  private readonly watch: LayoutWatch;
  private readonly input: StageInput;
  private readonly running = new Set<Gesture>();
  private readonly abort = new AbortController();
  private kept: KeptMarks;
  private due: LayoutChange[] = [];
  private frame = 0;
  private wait: ReturnType<typeof setTimeout> | undefined;
  /** Until when it is not looked again where things lie, unless something is scrolled or has another size. */
  private restUntil = 0;
  /** What of the page lies over the rest and does not scroll, parts of the window. */
  private bars: readonly Rect[] = [];
  /** Where the pointer was last, in the window. */
  private pointer = { x: 0, y: 0 };

  constructor(penCase: PenCase) {
    const ground: Ground = {
      top: document,
      glueOf: (mark) => this.glueOf(mark),
      takeHold: (glue) => takeHold(glue, this.words, document),
    };
    this.log = new PageLog(ground);
    this.guests = new PageLog(ground);
    this.desk = new TabDesk(this.log, penCase, (at) => void pourAt(this, at));
    this.catcher.className = 'catcher';
    this.host.root.append(this.catcher);
    this.sheet = new InkSheet(this.host, {
      marks: () => [...this.guests.all(), ...this.log.all()],
      wet: () => this.wet(),
      bars: () => this.bars,
      pictures: NO_PICTURES,
    });
    // Nothing can be said on the page itself then; where even that fails, nothing more can be done.
    this.host.onTakenAway = () => void ask({ ask: 'barred', why: say('takenAway') }).catch(() => undefined);
    this.kept = this.keep();
    this.input = new StageInput(this.catcher, this.glass());
    this.watch = new LayoutWatch(document, (change) => this.layoutChanged(change));
    this.follow();
  }

  /** Puts the marks of the address on the page; says so where they cannot be read. */
  async open(): Promise<void> {
    const { kept } = this;
    try {
      const marks = await kept.load();
      if (kept === this.kept) this.log.take(marks);
    } catch {
      // The browser's store is damaged, or was closed under us; writing goes on all the same.
      this.desk.tellProblem(say('notRead'));
    }
  }

  /** Keeps a mark that is still being made, so that a page that is loaded again in the middle has it; undefined where nothing of it is left. */
  keepAhead(id: string, mark: Mark | undefined): void {
    const before = this.log.get(id)?.glued;
    const glued = mark && { mark, glue: before?.glue ?? this.glueOf(mark) };
    this.kept.keep(new Map([[id, glued ?? before]]));
  }

  /** Resolves when all that was done is kept. */
  settled(): Promise<void> {
    return this.kept.settled();
  }

  /** What stays over the page while it scrolls, parts of the window. */
  barsNow(): readonly Rect[] {
    return this.bars;
  }

  /** Words of the page and their places on it, the first so many. */
  wordsOnPage(most: number): PlacedWord[] {
    const words = document.body ? this.words.of(document).placedWords(most) : [];
    return words.map((word) => ({ ...word, x: word.x + scrollX, y: word.y + scrollY }));
  }

  /** Brings a mark into the middle of the window, if it has a place. */
  goTo(placed: PlacedMark): void {
    const hold = placed.hold?.box();
    if (!placed.matrix || !hold) return;
    window.scrollTo({ top: hold.y - innerHeight / 2, left: hold.x - innerWidth / 2, behavior: 'instant' });
  }

  close(): void {
    this.abort.abort();
    cancelAnimationFrame(this.frame);
    clearTimeout(this.wait);
    this.watch.stop();
    this.input.destroy();
    this.kept.close();
    this.sheet.remove();
    this.host.remove();
  }

  private glueOf(mark: Mark): Glue {
    return this.host.aside(() => this.gluing.glueOf(mark));
  }

  private keep(): KeptMarks {
    const tooFull = () => this.desk.tellProblem(say('notKept'));
    return new KeptMarks(this.address.get(), (marks) => this.log.take(marks), tooFull);
  }

  /** Hears of everything that has to be drawn, kept or said. */
  private follow(): void {
    const { desk, log } = this;
    const touchWet = () => this.sheet.touchWet();
    const stops = [
      log.changed.subscribe(() => this.marksChanged()),
      this.guests.changed.subscribe(() => this.marksChanged()),
      this.guestInk.subscribe(touchWet),
      log.performed.subscribe((ids) => this.keepMarks(ids)),
      log.refused.subscribe((why) => desk.tellProblem(say(why === 'too-many' ? 'tooMany' : 'badMark'))),
      desk.ink.changed.subscribe(touchWet),
      desk.pointers.changed.subscribe(touchWet),
      desk.draft.subscribe(touchWet),
      desk.selection.ids.subscribe(touchWet),
      desk.mode.subscribe(() => this.modeChanged()),
      desk.picking.subscribe(() => this.modeChanged()),
      desk.penCase.subscribe(() => this.modeChanged()),
      fontArrived.subscribe(() => this.sheet.redraw()),
    ];
    this.abort.signal.addEventListener('abort', () => stops.forEach((stop) => stop()));
    this.modeChanged();
  }

  private keepMarks(ids: ReadonlySet<string>): void {
    this.kept.keep(new Map([...ids].map((id) => [id, this.log.get(id)?.glued])));
  }

  private marksChanged(): void {
    this.sheet.renew();
    this.sheet.touchWet();
    this.changes.set(this.changes.get() + 1);
  }

  private modeChanged(): void {
    const { mode, penCase, picking } = this.desk;
    const isWriting = mode.get() === 'write' || picking.get() !== undefined;
    this.catcher.style.pointerEvents = isWriting ? 'auto' : 'none';
    this.catcher.style.cursor = penCase.get().tool === 'select' && !picking.get() ? 'default' : 'crosshair';
    this.catcher.style.boxShadow =
      mode.get() === 'write' ? `inset 0 0 0 3px ${penCase.colour ?? '#f2c230'}` : 'none';
  }

  private layoutChanged(change: LayoutChange): void {
    if (change.content) this.words.forget();
    this.due.push(change);
    const rest = change.scroller || change.size ? 0 : this.restUntil - performance.now();
    if (rest > 0) this.wait ??= setTimeout(() => this.lookSoon(), rest);
    else this.lookSoon();
  }

  private lookSoon(): void {
    clearTimeout(this.wait);
    this.wait = undefined;
    this.frame ||= requestAnimationFrame(() => {
      this.frame = 0;
      const before = performance.now();
      this.lookAgain();
      const now = performance.now();
      // A page that changes at every frame has most of its time for itself.
      this.restUntil = now + Math.min(RESTS * (now - before), LONGEST_REST_MS);
    });
  }

  /** Looks where things lie after something may have moved them. */
  private lookAgain(): void {
    const due = this.due;
    this.due = [];
    if (due.some(({ content }) => content)) this.watch.lookForFrames();
    if (due.some(({ scroller }) => !scroller)) this.lookAtFace();
    if (due.some(({ scroller }) => scroller === document)) this.sheet.scrolled();
    if (due.some(({ scroller }) => scroller)) this.sheet.touchWet();
    this.host.rise();
    this.followAddress();
    if (this.measure(due)) {
      this.sheet.redraw();
      this.changes.set(this.changes.get() + 1);
    }
  }

  /** Looks what the page is like: what stays over it, and whether it is dark. */
  private lookAtFace(): void {
    this.bars = this.host.aside(() => barsOf(document));
    this.host.setDark(isDark(document));
    this.sheet.scrolled();
  }

  private measure(due: readonly LayoutChange[]): boolean {
    const content = due.some((change) => change.content);
    const which = due.some(({ scroller, idle }) => !scroller && !idle) ? undefined : this.concerned(due);
    const [own, guests] = [this.log, this.guests].map((log) => log.measure(which, content));
    return own! || guests!;
  }

  /** Which marks these changes may have moved. */
  private concerned(due: readonly LayoutChange[]): (placed: PlacedMark) => boolean {
    const scrollers = new Set(due.map(({ scroller }) => scroller));
    const isIdle = due.some(({ idle }) => idle);
    return ({ hold, picture, matrix }) => {
      if (!hold) return false;
      if (hold.stays && scrollers.has(document)) return true;
      if (hold.scrollers.some((one) => scrollers.has(one))) return true;
      return isIdle && matrix !== undefined && this.isNearSight(picture, matrix[5]);
    };
  }

  private isNearSight(picture: Mark, dy: number): boolean {
    const y = ('y' in picture ? picture.y : 'points' in picture ? picture.points[1]! : scrollY) + dy;
    return y > scrollY - innerHeight && y < scrollY + 2 * innerHeight;
  }

  /** A route of a single-page application is another page, without a load. */
  private followAddress(): void {
    const address = addressOf(location.href);
    if (address === this.address.get()) return;
    this.kept.close();
    this.address.set(address);
    this.kept = this.keep();
    this.log.clear();
    this.desk.selection.clear();
    this.desk.textEdit.set(undefined);
    void this.open();
  }

  private wet(): Wet {
    const { ink, pointers, draft, penCase } = this.desk;
    const fading = ink.onPage('page', 'class');
    const corners = draft.get();
    const previews: Preview[] = [...this.running].map(({ preview }) => preview);
    if (corners && this.running.size === 0) previews.push({ area: corners });
    const dots = pointers
      .onPage('page')
      .map(([, { trail }]) => ({ colour: penCase.colour ?? '#f2c230', trail }));
    return {
      ink: [...fading, ...this.guestInk.get()],
      previews,
      dots,
      goesOn: fading.length > 0 || dots.length > 0,
    };
  }

  /** What pointers need of the page that they are over. */
  private glass(): ConstructorParameters<typeof StageInput>[1] {
    const { desk } = this;
    const toPage = (x: number, y: number) => ({ x: x + scrollX, y: y + scrollY });
    const nothing = () => undefined;
    return {
      get writing() {
        return desk.mode.get() === 'write' || desk.picking.get() !== undefined;
      },
      get finger() {
        return desk.penCase.get().finger;
      },
      halvesAt: undefined,
      toPage,
      begin: (at, pressure, eraser) => this.begin(at, pressure, eraser),
      hover: (at) => this.hover(at),
      pan: (dx, dy) => this.pan(dx, dy),
      // The browser enlarges pages itself.
      zoom: nothing,
      swipe: nothing,
      uncover: () => false,
    };
  }

  private hover(at: { x: number; y: number } | undefined): void {
    if (at) this.pointer = { x: at.x - scrollX, y: at.y - scrollY };
    const { pointers, penCase } = this.desk;
    if (penCase.get().tool !== 'pointer') return;
    if (at) pointers.point('page', at.x, at.y);
    else pointers.rest('page');
  }

  /** Scrolls what is under the pointer, as far as it goes, else the page. */
  private pan(dx: number, dy: number): void {
    const { x, y } = this.pointer;
    const under = this.host.aside(() => document.elementFromPoint(x, y));
    for (
      let at = under;
      at && at !== document.body && at !== document.documentElement;
      at = at.parentElement
    ) {
      const before = [at.scrollLeft, at.scrollTop];
      at.scrollBy({ left: -dx, top: -dy, behavior: 'instant' });
      if (before[0] !== at.scrollLeft || before[1] !== at.scrollTop) return;
    }
    window.scrollBy({ left: -dx, top: -dy, behavior: 'instant' });
  }

  private begin(at: PenPoint, pressure: boolean, eraser: boolean): RunningGesture | undefined {
    this.pointer = { x: at.x - scrollX, y: at.y - scrollY };
    const picked = this.desk.picking.get();
    if (picked) return this.pickColour(at, picked);
    const { tool } = this.desk.penCase.get();
    const id = eraser ? 'eraser' : isTabTool(tool) ? tool : 'pen';
    const words = this.host.aside(() => shownWordsAt(this.words, this.host, at));
    const onChange = () => this.sheet.touchWet();
    const gesture = TAB_TOOLS[id].begin(at, { desk: this.desk, pressure, words, onChange });
    return gesture && this.run(gesture);
  }

  private run(gesture: Gesture): RunningGesture {
    this.running.add(gesture);
    this.sheet.touchWet();
    const finish = (how: 'end' | 'cancel') => () => {
      this.running.delete(gesture);
      gesture[how]();
      this.sheet.touchWet();
    };
    return {
      move: (points) => {
        gesture.move(points);
        this.sheet.touchWet();
      },
      end: finish('end'),
      cancel: finish('cancel'),
    };
  }

  /** Takes the colour of the page where the pointer comes up. */
  private pickColour(
    start: PenPoint,
    picked: (hex: string, at: { x: number; y: number }) => void,
  ): RunningGesture {
    let at: { x: number; y: number } = start;
    const done = () => this.desk.picking.set(undefined);
    const take = async () => {
      done();
      const picture = await pictureOfTab(this);
      if (picture) picked(picture.colourAt(at.x - scrollX, at.y - scrollY), at);
    };
    return { move: (points) => void (at = points.at(-1) ?? at), end: () => void take(), cancel: done };
  }
}
