import type { PageDesk } from '../room/pageDesk';
import type { Placing } from './placing';
import type { SightTeller } from './sightTeller';

type SightDesk = Pick<
  PageDesk,
  'page' | 'pageId' | 'extentOf' | 'isTeacher' | 'isBeside' | 'apart' | 'classroom'
> & {
  room: Pick<PageDesk['room'], 'device' | 'seat'>;
};

/** What the teacher sees of the page: a teacher's screen tells it, the others keep it in sight. */
export class SharedSight {
  /** Comes a moment later, for teachers only. */
  private teller: SightTeller | undefined;
  /** Whether the page lies as the teacher's does. */
  private followed = false;

  /** `isWriting` says whether a hand is at work, under which nothing may move. */
  constructor(
    private readonly desk: SightDesk,
    private readonly placing: Placing,
    private readonly isWriting: () => boolean,
  ) {
    // Without it students look where they like, as they may anyway.
    this.lead().catch(() => undefined);
  }

  /** Tells the class what is seen here, where this is its teacher's own screen. */
  tell(): void {
    const { page, classroom } = this.desk;
    if (!page || !this.teller || classroom?.state.get()?.page !== page.id) return;
    const { isLive, region, glass, size, room } = this.placing;
    const extent = isLive || region !== undefined ? undefined : this.desk.extentOf(page);
    this.teller.tell(page.id, extent, glass, size, room);
  }

  /** Keeps what the teacher sees in sight, until this person moves the page. */
  follow(): void {
    const { pageId, isTeacher, apart, classroom } = this.desk;
    const { isLive, region } = this.placing;
    if (isTeacher || isLive || region || apart.get() || this.isWriting()) return;
    // Who looks back after the class is led by nobody.
    const sight = classroom?.state.get()?.ended ? null : classroom?.scene.get().sight;
    if (sight && sight.page === pageId.get()) {
      this.followed = true;
      this.placing.showSight(sight);
    } else if (this.followed) {
      this.followed = false;
      this.placing.setFit('page');
    }
  }

  /** A student who moves the page sees it their own way from then on. */
  goApart(): void {
    const { pageId, isTeacher, apart, classroom } = this.desk;
    if (!isTeacher && classroom?.scene.get().sight?.page === pageId.get()) apart.set(true);
  }

  stop(): void {
    this.teller?.stop();
  }

  /** A teacher's own screen leads the class's. */
  private async lead(): Promise<void> {
    const { isTeacher, room, isBeside, classroom } = this.desk;
    if (!isTeacher || room.device || room.seat !== undefined || isBeside || !classroom) return;
    const { SightTeller: Teller } = await import('./sightTeller');
    this.teller = new Teller(this.desk);
  }
}
