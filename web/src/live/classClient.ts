import type { ClassState, Person } from '@doodla/core';
import { LIVE } from '@doodla/core';
import type { Connection } from './connection';
import { Store } from './store';

/** How things stand in a class, as the server tells it; the teacher's own changes count at once. */
export class ClassClient {
  readonly state = new Store<ClassState | undefined>(undefined);
  private readonly stops: (() => void)[];
  /** A change made while offline, told to the server on return. */
  private unsent: { page?: string; pensUp?: boolean } = {};

  constructor(
    private readonly sitting: string,
    private readonly connection: Connection,
  ) {
    this.stops = [
      connection.onOnline(() => void this.enter()),
      connection.on<[ClassState]>(LIVE.classState, (state) => {
        if (state.sitting === sitting) this.state.set({ ...state, ...this.unsent });
      }),
    ];
  }

  person(id: string): Person | undefined {
    return this.state.get()?.people.find((person) => person.id === id);
  }

  turn(page: string): void {
    this.change({ page });
  }

  setPens(pensUp: boolean): void {
    this.change({ pensUp });
  }

  close(): void {
    for (const stop of this.stops) stop();
  }

  private change(part: { page?: string; pensUp?: boolean }): void {
    // Kept also before the class's state has arrived, so that an early tap is not lost.
    this.unsent = { ...this.unsent, ...part };
    const state = this.state.get();
    if (state) this.state.set({ ...state, ...part });
    void this.tell();
  }

  private async enter(): Promise<void> {
    const state = await this.connection
      .request<ClassState>(LIVE.enter, { sitting: this.sitting })
      .catch(() => undefined);
    if (!state) return;
    this.state.set({ ...state, ...this.unsent });
    await this.tell();
  }

  private async tell(): Promise<void> {
    const { page, pensUp } = this.unsent;
    const { sitting } = this;
    try {
      if (page !== undefined) await this.connection.request(LIVE.turn, { sitting, page });
      if (this.unsent.page === page) delete this.unsent.page;
      if (pensUp !== undefined) await this.connection.request(LIVE.pens, { sitting, up: pensUp });
      if (this.unsent.pensUp === pensUp) delete this.unsent.pensUp;
    } catch {
      // Told again after the next connection.
    }
  }
}
