import type { InkStyle } from '@doodla/core';
import { Signal } from '@doodla/core/client';
import type { PageCanvas } from '../canvas/pageCanvas';
import type { Preview } from '../canvas/preview';
import type { Gesture, PenPoint, RunningGesture } from '../desk/gesture';
import { patiently, pageShows } from '../ui/moments';
import type { PageDesk } from '../room/pageDesk';
import type { ToolId } from '../tools/tools';
import type { ShownWords } from '../tools/toolWork';
import type { WORK } from '../tools/work';
import { holdOn } from './paneHold';
import type { Placing } from './placing';
import { uncover } from './uncover';
import type { Underlays } from './underlays';

/** What the pointers that are down do with the tools in hand, and what is seen of it meanwhile. */
export class PenWork {
  /** Tells where each gesture has ended. */
  readonly written = new Signal<PenPoint>();
  /** Told when a gesture has ended or was taken back. */
  readonly finished = new Signal();
  /** Told when something is to be seen that was not. */
  readonly changed = new Signal();
  /** Running gestures, with what ends them. */
  private readonly running = new Map<Gesture, () => void>();
  /** What the tools do; it comes a moment after the page. */
  private work: typeof WORK | undefined;
  private readonly allIsHere: Promise<void>;
  private outside: Preview | undefined;

  constructor(
    private readonly desk: PageDesk,
    private readonly placing: Placing,
    private readonly underlays: Underlays,
    private readonly canvas: Pick<PageCanvas, 'colourAt'>,
  ) {
    this.allIsHere = pageShows.passed
      .then(() => patiently(() => import('../tools/work')))
      .then((tools) => void (this.work = tools.WORK))
      .then(() => desk.target.hasOpened);
  }

  get isWriting(): boolean {
    return this.running.size > 0;
  }

  /** What running gestures show, and what comes from elsewhere. */
  get previews(): readonly Preview[] {
    const own = [...this.running.keys()].map(({ preview }) => preview);
    return this.outside ? [...own, this.outside] : own;
  }

  /** Shows a preview that comes from elsewhere than a tool, such as the handles of a selection. */
  showPreview(preview: Preview | undefined): void {
    this.outside = preview;
    this.changed.tell();
  }

  /** Starts what a tool does at a point of the page; `eraser` is the eraser end of a pen. */
  begin(at: PenPoint, pressure: boolean, eraser: boolean): RunningGesture | undefined {
    const picking = this.desk.picking.get();
    if (picking) {
      this.desk.picking.set(undefined);
      picking(this.colourAt(at), at);
      return undefined;
    }
    if (!this.work || !this.desk.target.status.get().ready) return this.beginLater(at, pressure, eraser);
    this.desk.textEdit.set(undefined);
    if (uncover(this.desk, at)) return undefined;
    this.underlays.recording.get()?.holdForWriting();
    const hold = holdOn(this.placing.panes, at);
    const within = <T>(run: () => T) => this.desk.onPane(hold.pane, run);
    const tool = eraser ? 'eraser' : this.desk.penCase.get().tool;
    const gesture = within(() => this.toolGesture(tool, { ...at, ...hold.toOwn(at) }, pressure));
    if (!gesture) return undefined;
    let last = at;
    const finish = (how: 'end' | 'cancel') => () => {
      if (!this.running.delete(gesture)) return;
      within(() => gesture[how]());
      this.changed.tell();
      this.finished.tell();
      if (how === 'end') this.written.tell(last);
    };
    this.running.set(gesture, finish('end'));
    this.changed.tell();
    const move = (points: readonly PenPoint[]) => {
      if (!this.running.has(gesture)) return;
      last = points.at(-1) ?? last;
      within(() => gesture.move(points.map((point) => ({ ...point, ...hold.toOwn(point) }))));
      this.changed.tell();
    };
    return { move, end: finish('end'), cancel: finish('cancel') };
  }

  /** What is drawn before the tools or the log have come is done when they are here: nothing of it is lost. */
  private beginLater(at: PenPoint, pressure: boolean, eraser: boolean): RunningGesture {
    const waiting: ((gesture: RunningGesture) => void)[] = [];
    let gesture: RunningGesture | undefined;
    const later = (step: (gesture: RunningGesture) => void) => {
      if (gesture) step(gesture);
      else waiting.push(step);
    };
    void this.allIsHere.then(() => {
      gesture = this.begin(at, pressure, eraser);
      if (gesture) for (const step of waiting) step(gesture);
    });
    return {
      move: (points) => later((begun) => begun.move(points)),
      end: () => later((begun) => begun.end()),
      cancel: () => later((begun) => begun.cancel()),
    };
  }

  /** Ends all that is being done: it belongs to the page that it was begun on. */
  endAll(): void {
    for (const end of [...this.running.values()]) end();
  }

  private toolGesture(tool: ToolId, at: PenPoint, pressure: boolean): Gesture | undefined {
    const { desk } = this;
    if (tool !== 'select') desk.selection.clear();
    if (!desk.room.mayTake(tool)) return undefined;
    return this.work?.[tool].begin(at, {
      desk,
      pressure,
      scale: this.placing.view.get().scale,
      words: this.wordsAt(at),
      penAt: (point, inHand) => this.penAt(point, inHand),
      onChange: this.changed.tell,
    });
  }

  /** The words of the shown page that may be marked from a point on; beside what is printed ink is drawn. */
  private wordsAt({ x, y }: PenPoint): ShownWords | undefined {
    const { page, surfaces } = this.desk;
    if (page?.surface.kind === 'web') return this.underlays.words;
    const words = page && surfaces.wordsOf(page);
    return words?.hasAt(x, y) ? words : undefined;
  }

  /** The pen of the hand that writes at a point: the half away from the tools may have its own. */
  private penAt(at: PenPoint, inHand: InkStyle): InkStyle {
    const { otherHand } = this.desk.penCase.get();
    if (!otherHand) return inHand;
    const { scale, x } = this.placing.view.get();
    const left = at.x * scale + x < this.placing.size.width / 2;
    return left === (this.placing.toolSide === 'left') ? inHand : otherHand;
  }

  /** The colour that is seen at a point of the page, as hex. */
  private colourAt({ x, y }: { x: number; y: number }): string {
    const { scale, x: left, y: top } = this.placing.view.get();
    return this.canvas.colourAt(x * scale + left, y * scale + top);
  }
}
