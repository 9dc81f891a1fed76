import type { Line, StepTaken } from '@doodla/core/client';
import { Store } from '@doodla/core/client';
import { PageDesk } from './pageDesk';
import type { RoomOptions } from './room';
import { Room } from './room';
import { t } from '../words';

/** A room and the desks in it, each with the page that the class, or whoever is at it, wants there. */
export class Workspace {
  readonly room: Room;
  readonly main: PageDesk;
  /** The desk beside the main one, while two pages are shown. */
  readonly side = new Store<PageDesk | undefined>(undefined);
  /** The one of the two that was last touched. */
  readonly active: Store<PageDesk>;
  /** The page that the class was last known to be on. */
  private classPage: string | undefined;
  /** Whether a student could write before the class's state last changed. */
  private couldWrite = true;
  private readonly stops: (() => void)[] = [];

  constructor(options: RoomOptions, connection?: Line) {
    this.room = new Room(options, connection);
    this.main = new PageDesk(this.room);
    this.active = new Store(this.main);
    this.main.surfaces.failed.subscribe(() => this.surfaceFailed());
    const { classroom, target, pages } = this.room;
    target.stepped.subscribe((step) => this.showStep(step));
    pages.subscribe(() => this.followPages());
    this.stops.push(
      this.main.pageId.subscribe(() => this.lookAt()),
      this.active.subscribe(() => this.lookAt()),
    );
    classroom?.state.subscribe(() => this.followClass());
    classroom?.scene.subscribe(() => this.followScene());
  }

  close(): void {
    for (const stop of this.stops) stop();
    this.side.get()?.close();
    this.main.close();
    this.room.close();
  }

  /** Undo is of the page that was last touched. */
  private lookAt(): void {
    const page = this.active.get().pageId.get();
    this.room.target.lookAt(page);
  }

  private surfaceFailed(): void {
    this.room.tellProblem(t('room.thisPageCouldNotBe'));
  }

  /** Undo of a page itself goes to that page and says so. */
  private showStep({ which, pages, ofPages }: StepTaken): void {
    if (!ofPages) return;
    const there = this.room.pages.get().find(({ id }) => pages.includes(id));
    if (there && there.id !== this.main.pageId.get()) this.main.turnTo(there.id);
    const undone = there ? 'room.undoneHere' : 'room.undoneAway';
    const again = there ? 'room.doneAgainHere' : 'room.doneAgainAway';
    this.room.tellNotice(t(which === 'undo' ? undone : again));
  }

  /** No desk keeps a page that is gone. */
  private followPages(): void {
    const { room, main } = this;
    const pages = room.pages.get();
    const isThere = (desk: PageDesk) => pages.some(({ id }) => id === desk.pageId.get());
    const side = this.side.get();
    if (side && !isThere(side)) side.pageId.set(pages[0]?.id);
    if (isThere(main)) return;
    const { startPage } = room.options;
    const state = room.isLooking ? undefined : room.classroom?.state.get();
    const wanted = state?.ended ? (startPage ?? state.page) : (state?.page ?? startPage);
    main.pageId.set((pages.find(({ id }) => id === wanted) ?? pages[0])?.id);
  }

  /** Shows a second page beside the first as long as the class does. */
  private followScene(): void {
    const { room, main } = this;
    const { split } = room.classroom!.scene.get();
    const side = this.side.get();
    if (!split || room.device === 'pad' || room.isLooking) {
      this.active.set(main);
      this.side.set(undefined);
      side?.close();
      return;
    }
    const shown = side ?? this.addDesk();
    shown.lay(split.page);
    this.side.set(shown);
  }

  private addDesk(): PageDesk {
    const desk = new PageDesk(this.room, true);
    desk.surfaces.failed.subscribe(() => this.surfaceFailed());
    desk.pageId.subscribe(() => this.lookAt());
    return desk;
  }

  private followClass(): void {
    const { room, main } = this;
    if (room.isLooking) return;
    this.followPage(room.classroom!.state.get()?.page);
    if (room.isTeacher) return;
    // What was in hand may have been put away.
    if (room.mayWrite && !room.mayTake(room.penCase.get().tool)) room.penCase.patch({ tool: 'pen' });
    if (room.mayWrite === this.couldWrite) return;
    this.couldWrite = room.mayWrite;
    main.setMode(room.mayWrite ? 'write' : 'use');
  }

  /** Whoever may go by themselves and has gone stays where they are. */
  private followPage(page: string | undefined): void {
    const { room, main } = this;
    const before = this.classPage;
    this.classPage = page;
    const strays = !room.isTeacher && room.mayTurn && before !== undefined && main.pageId.get() !== before;
    if (strays) return;
    if (page !== undefined && room.hasPage(page)) main.lay(page);
    else if (page !== main.pageId.get()) main.settle();
  }
}
