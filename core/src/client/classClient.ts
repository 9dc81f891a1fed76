import type { IdeaRules } from '../ideas/ideaRules.js';
import { withIdeas } from '../ideas/ideaRules.js';
import type { ClassChange } from '../live/classChange.js';
import type { ShownCopy, StudentTable, Way, Ways } from '../live/copies.js';
import { withClassChange } from '../live/classChange.js';
import type {
  ClassState,
  IdeasMessage,
  PensMessage,
  PensOfMessage,
  Person,
  RulesMessage,
  SceneMessage,
  ShowCopyMessage,
  TablesMessage,
  WaysMessage,
} from '../live/messages.js';
import type { PenState, Rules } from '../live/rules.js';
import type { Scene } from '../live/scene.js';
import { LIVE } from '../live/messages.js';
import { EMPTY_SCENE } from '../live/scene.js';
import type { Line } from './line.js';
import { LiveError } from './line.js';
import { Signal } from './signal.js';
import { Store } from './store.js';

/** The scene of a lesson outside a class. */
export const NO_SCENE = new Store(EMPTY_SCENE);
/** The state where there is no class. */
export const NO_CLASS = new Store<ClassState | undefined>(undefined);

/** A page that the server does not know yet is turned to again after a moment, so often. */
const RETRY_MS = 400;
const MOST_TRIES = 10;

/** While a hand moves something of the scene, others are told at most so often. */
const MOVING_MS = 33;

interface Unsent {
  page?: string;
  pensUp?: boolean;
  /** Of single students. */
  pens?: Readonly<Record<string, PenState>>;
  rules?: Partial<Rules>;
  ways?: Readonly<Record<string, Way>>;
  tables?: readonly StudentTable[];
  copy?: ShownCopy | null;
  /** How ideas are collected, by page. */
  ideas?: Readonly<Record<string, IdeaRules | null>>;
  scene?: Partial<Scene>;
}

/** How things stand in a class, as the server tells it; the teacher's own changes count at once. */
export class ClassClient {
  readonly state = new Store<ClassState | undefined>(undefined);
  /** What the teacher has set up round the page. */
  readonly scene = new Store<Scene>(EMPTY_SCENE);
  /** Tells what could not be done, in a sentence. */
  readonly refused = new Signal<string>();
  private readonly stops: (() => void)[];
  /** What the server has told, without what is done here. */
  private told: ClassState | undefined;
  /** The last change that was heard of, by its version. */
  private heard = 0;
  /** A change made while offline, told to the server on return. */
  private unsent: Unsent = {};
  /** What a hand on this device is moving. */
  private held: Partial<Scene> = {};
  private movedAt = 0;
  /** How often the server did not know the page that was turned to. */
  private turnTries = 0;
  /** The server's clock less this device's, milliseconds. */
  private clockAhead = 0;

  constructor(
    private readonly sitting: string,
    private readonly connection: Line,
  ) {
    this.stops = [
      connection.onOnline(() => {
        // The server may have been started anew, and count from the beginning.
        this.told = undefined;
        this.heard = 0;
        void this.enter();
      }),
      connection.on<[ClassChange]>(LIVE.classChange, (change) => {
        if (change.sitting === sitting) this.hear(change);
      }),
      connection.on<[SceneMessage]>(LIVE.scene, (message) => {
        if (message.sitting === sitting) this.scene.patch({ ...message.set, ...this.held });
      }),
    ];
  }

  /** The server's clock, milliseconds since 1970-01-01 UTC. */
  get now(): number {
    return Date.now() + this.clockAhead;
  }

  person(id: string): Person | undefined {
    return this.state.get()?.people.find((person) => person.id === id);
  }

  turn(page: string): void {
    this.change({ page });
  }

  /** Pens up or down for all, which ends what was said of single students. */
  setPens(pensUp: boolean): void {
    delete this.unsent.pens;
    this.change({ pensUp });
  }

  /** Pens up or down for some. */
  setPensOf(who: readonly string[], up: boolean): void {
    const pens = Object.fromEntries(who.map((id) => [id, up ? 'up' : 'down'] as const));
    this.change({ pens: { ...this.unsent.pens, ...pens } });
  }

  setRules(rules: Partial<Rules>): void {
    this.change({ rules: { ...this.unsent.rules, ...rules } });
  }

  /** Hands a page to the class in another way; with pens up where it is to be written on at once. */
  setWay(page: string, way: Way, pensUp?: boolean): void {
    if (pensUp !== undefined) this.setPens(pensUp);
    this.change({ ways: { ...this.unsent.ways, [page]: way } });
  }

  seatAt(tables: readonly StudentTable[]): void {
    this.change({ tables });
  }

  /** Shows a copy to the whole class, or none. */
  showCopy(copy: ShownCopy | null): void {
    this.change({ copy });
  }

  /** Collects ideas on a page in a way, or no more. */
  setIdeas(page: string, rules: IdeaRules | null): void {
    this.change({ ideas: { ...this.unsent.ideas, [page]: rules } });
  }

  /** Whether the pen of a student is up. */
  penUpOf(id: string): boolean {
    return isPenUp(this.state.get(), id);
  }

  /** Changes the scene; `moving` while a hand still moves it, so that it need not be kept. */
  setScene(set: Partial<Scene>, moving = false): void {
    this.scene.patch(set);
    if (!moving) {
      this.held = {};
      return this.change({ scene: set });
    }
    this.held = { ...this.held, ...set };
    const now = performance.now();
    if (now - this.movedAt < MOVING_MS) return;
    this.movedAt = now;
    const message: SceneMessage = { sitting: this.sitting, set, moving: true };
    this.connection.sendVolatile(LIVE.scene, message);
  }

  close(): void {
    for (const stop of this.stops) stop();
  }

  private change({ scene, ...part }: Unsent): void {
    // Kept also before the class's state has arrived, so that an early tap is not lost.
    this.unsent = { ...this.unsent, ...part, ...(scene && { scene: { ...this.unsent.scene, ...scene } }) };
    const state = this.state.get();
    if (state) this.state.set(withUnsent(state, part));
    void this.tell();
  }

  /** A change follows the version that is known; where one is missing, all is asked for again. */
  private hear(change: ClassChange): void {
    this.heard = Math.max(this.heard, change.version);
    if (!this.told || change.version <= this.told.version) return;
    if (change.version === this.told.version + 1) return this.take(withClassChange(this.told, change));
    void this.enter();
  }

  private take(state: ClassState): void {
    this.told = state;
    const { scene, ...others } = this.unsent;
    this.clockAhead = state.now - Date.now();
    this.scene.set({ ...state.scene, ...scene, ...this.held });
    this.state.set(withUnsent(state, others));
  }

  private async enter(): Promise<void> {
    try {
      const state = await this.connection.request<ClassState>(LIVE.enter, { sitting: this.sitting });
      this.take(state);
      if (this.heard > state.version) return await this.enter();
    } catch (error) {
      // Asked again after the next connection.
      if (!isUnreachable(error)) this.refused.tell((error as Error).message);
      return;
    }
    await this.tell();
  }

  private async tell(): Promise<void> {
    const { page, pensUp, pens, rules, tables, ways, copy, ideas, scene } = this.unsent;
    const { sitting } = this;
    if (page !== undefined) await this.tellPart('page', LIVE.turn, { sitting, page });
    if (pensUp !== undefined)
      await this.tellPart('pensUp', LIVE.pens, { sitting, up: pensUp } satisfies PensMessage);
    if (pens) await this.tellPart('pens', LIVE.pensOf, { sitting, pens } satisfies PensOfMessage);
    if (rules) await this.tellPart('rules', LIVE.rules, { sitting, set: rules } satisfies RulesMessage);
    if (tables) await this.tellPart('tables', LIVE.tables, { sitting, tables } satisfies TablesMessage);
    if (ways) await this.tellPart('ways', LIVE.ways, { sitting, ways } satisfies WaysMessage);
    if (copy !== undefined)
      await this.tellPart('copy', LIVE.showCopy, { sitting, copy } satisfies ShowCopyMessage);
    if (ideas) await this.tellPart('ideas', LIVE.ideas, { sitting, set: ideas } satisfies IdeasMessage);
    if (scene) await this.tellPart('scene', LIVE.scene, { sitting, set: scene, moving: false });
  }

  /** A page that was only just added may not have reached the server; the turn is told again a few times. */
  private waitsForPage(error: unknown): boolean {
    if (!(error instanceof LiveError) || error.code !== 'no-such-page' || this.turnTries >= MOST_TRIES)
      return false;
    this.turnTries += 1;
    setTimeout(() => void this.tell(), RETRY_MS);
    return true;
  }

  /** What is refused for good is told and let go of; what did not arrive is told again after the next connection. */
  private async tellPart(part: keyof Unsent, event: string, message: object): Promise<void> {
    const told = this.unsent[part];
    try {
      await this.connection.request(event, message);
    } catch (error) {
      if (isUnreachable(error)) return;
      if (this.waitsForPage(error)) return;
      this.refused.tell((error as Error).message);
    }
    this.turnTries = 0;
    if (this.unsent[part] === told) delete this.unsent[part];
  }
}

/** Whether the pen of a student is up, as far as is known; it is where there is no class. */
export function isPenUp(state: ClassState | undefined, id: string | undefined): boolean {
  const own = state?.people.find((person) => person.id === id)?.pen;
  return own ? own === 'up' : (state?.pensUp ?? true);
}

function withWays(before: Ways, set: Readonly<Record<string, Way>>): Ways {
  return Object.fromEntries(
    Object.entries({ ...before, ...set }).filter((one): one is [string, Ways[string]] => one[1] !== 'class'),
  );
}

/** The state with what the server has not been told yet. */
function withUnsent(state: ClassState, unsent: Unsent): ClassState {
  const { page, pensUp, pens, rules, ways, tables, copy, ideas } = unsent;
  const penOf = ({ id, pen }: Person) => pens?.[id] ?? (pensUp === undefined ? pen : null);
  return {
    ...state,
    ...(page !== undefined && { page }),
    ...(pensUp !== undefined && { pensUp }),
    ...(rules && { rules: { ...state.rules, ...rules } }),
    ...(ways && { ways: withWays(state.ways, ways) }),
    ...(tables && { tables }),
    ...(copy !== undefined && { copy }),
    ...(ideas && { ideas: withIdeas(state.ideas, ideas) }),
    people: state.people.map((person) => ({ ...person, pen: penOf(person) })),
  };
}

function isUnreachable(error: unknown): boolean {
  return error instanceof LiveError && error.code === 'unreachable';
}
