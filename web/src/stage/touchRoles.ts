/** Something that touches the glass, or a pen that hovers over it. */
export interface Contact {
  id: number;
  kind: 'touch' | 'pen' | 'mouse';
  /** Place and size in the window, CSS pixels. */
  x: number;
  y: number;
  width: number;
  height: number;
  /** Milliseconds by the events' clock. */
  at: number;
}

/** What a contact is there for: to work on the page, with another one to move and enlarge it, or a hand that rests. */
export type Role = 'works' | 'pinches' | 'rests';

/** What a contact that has come or moved means, and which earlier ones were taken for something that they are not. */
export interface Verdict {
  role: Role;
  /** Contacts whose work is to be taken back. */
  takenBack: readonly number[];
}

/** What is set up for the glass. */
export interface Wishes {
  /** Touches never work once a pen has been used. */
  restless?: boolean;
  /** Where the half of one person ends and that of another begins, while there are two; CSS pixels. */
  halvesAt?: number | undefined;
}

interface Known extends Contact {
  from: { x: number; y: number; at: number };
  role: Role;
}

/** Touches broader than this are palms; CSS pixels. */
const PALM_WIDTH = 60;
/** So long after the pen was last there, touches are taken for the hand that holds it. */
const PEN_NEAR_MS = 400;
/** A touch that came so short a time before the pen, or is so near to it, is the hand that holds it. */
const BEFORE_PEN_MS = 700;
const HAND_REACH = 420;
/** Two fingers of one hand are no further apart than this; what is, belongs to two hands. CSS pixels. */
const SPAN = 460;
/** A second finger comes this soon where the two mean to move the page, and before the first has drawn this far. */
const PINCH_MS = 700;
const DRAWN = 14;

/**
 * Works out what the contacts on a glass are there for: by their size, by how near the pen is, by how far apart they
 * are and by what they have done so far. Common practice, no source; the sizes are those of hands on displays of 96
 * pixels to the inch.
 */
export class TouchRoles {
  private readonly known = new Map<number, Known>();
  /** Where and when a pen was last on the glass or over it. */
  private pen: Contact | undefined;

  /** Whether a pen has been used here. */
  get hasPen(): boolean {
    return this.pen !== undefined;
  }

  /** A contact has come down. */
  down(contact: Contact, wishes: Wishes = {}): Verdict {
    const { id, x, y, at, kind } = contact;
    const verdict = kind === 'touch' ? this.ofTouch(contact, wishes) : this.ofPen(contact);
    this.known.set(id, { ...contact, from: { x, y, at }, role: verdict.role });
    for (const other of verdict.takenBack) {
      const taken = this.known.get(other);
      if (taken) taken.role = verdict.role === 'pinches' ? 'pinches' : 'rests';
    }
    return verdict;
  }

  /** A contact has moved, or a pen hovers. A touch that has grown into a palm is taken back. */
  move(contact: Contact): Verdict {
    const { id, kind } = contact;
    if (kind === 'pen') this.pen = contact;
    const known = this.known.get(id);
    if (!known) return { role: 'rests', takenBack: [] };
    Object.assign(known, contact);
    if (kind !== 'touch' || known.role !== 'works' || !isBroad(contact))
      return { role: known.role, takenBack: [] };
    known.role = 'rests';
    return { role: 'rests', takenBack: [id] };
  }

  /** A contact is gone, at a time. */
  up(id: number, at: number): void {
    if (this.pen?.id === id) this.pen = { ...this.pen, at };
    this.known.delete(id);
  }

  /** Whether a touch is the hand that holds the pen, or one that is not to work at all. */
  private isBesidePen({ x, y, at }: Contact, restless: boolean): boolean {
    const { pen } = this;
    if (!pen) return false;
    const isNear = Math.hypot(pen.x - x, pen.y - y) < 2 * HAND_REACH;
    return restless || (isNear && at - pen.at < PEN_NEAR_MS);
  }

  private ofPen(contact: Contact): Verdict {
    const { kind, x, y, at } = contact;
    if (kind !== 'pen') return { role: 'works', takenBack: [] };
    this.pen = contact;
    const hand = [...this.known.values()].filter(
      (other) =>
        other.kind === 'touch' &&
        other.role !== 'rests' &&
        (at - other.from.at < BEFORE_PEN_MS || Math.hypot(other.x - x, other.y - y) < HAND_REACH),
    );
    return { role: 'works', takenBack: hand.map(({ id }) => id) };
  }

  private ofTouch(contact: Contact, { restless = false, halvesAt }: Wishes): Verdict {
    const { x, y, at } = contact;
    if (isBroad(contact) || this.isBesidePen(contact, restless)) return { role: 'rests', takenBack: [] };
    const others = [...this.known.values()].filter(({ kind, role }) => kind === 'touch' && role !== 'rests');
    const first = others[0];
    if (others.length !== 1 || !first)
      return { role: others.length > 1 ? others[0]!.role : 'works', takenBack: [] };
    const drawn = Math.hypot(first.x - first.from.x, first.y - first.from.y);
    const areTwoPeople = halvesAt !== undefined && first.x < halvesAt !== x < halvesAt;
    const isPinch =
      !areTwoPeople &&
      at - first.from.at < PINCH_MS &&
      drawn < DRAWN &&
      Math.hypot(first.x - x, first.y - y) < SPAN;
    return isPinch ? { role: 'pinches', takenBack: [first.id] } : { role: 'works', takenBack: [] };
  }
}

const isBroad = ({ width, height }: Contact) => Math.max(width, height) > PALM_WIDTH;
