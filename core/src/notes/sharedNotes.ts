import type { Node } from 'prosemirror-model';
import { Step } from 'prosemirror-transform';
import { notesSchema } from './notesSchema.js';

/** A step of somebody's writing, and which browser it came from. */
export interface NoteStep {
  step: object;
  client: string;
}

/** Notes as they are told and kept: what they say, and the last steps that led there. */
export interface KeptNotes {
  doc: object;
  version: number;
  /** The last of them leads to `version`. */
  steps: readonly NoteStep[];
}

/** Most that notes may hold, counted as ProseMirror does: letters, and two for each paragraph. */
export const MOST_NOTES = 60_000;
/** How deep lists may lie in each other. */
const DEEPEST = 12;
/** Steps that are kept for those who were away. */
const MOST_STEPS = 500;

/** Steps cannot be done to the notes. */
export class NotesError extends Error {
  constructor(readonly code: 'notes-bad' | 'notes-full') {
    super(code);
  }
}

/**
 * Notes that several write at once. Whoever comes first counts; who was behind is told what they missed, puts their own after it
 * and sends them again (the scheme of "Collaborative editing in ProseMirror", M. Haverbeke, 2015).
 */
export class SharedNotes {
  private constructor(
    private doc: Node,
    readonly steps: NoteStep[],
    private count: number,
  ) {}

  static empty(): SharedNotes {
    return new SharedNotes(notesSchema.topNodeType.createAndFill()!, [], 0);
  }

  /** Throws RangeError where these are no notes. */
  static of({ doc, version, steps }: KeptNotes): SharedNotes {
    const node = notesSchema.nodeFromJSON(doc);
    node.check();
    return new SharedNotes(node, [...steps], version);
  }

  get version(): number {
    return this.count;
  }

  get isEmpty(): boolean {
    return this.doc.textContent.trim() === '';
  }

  kept(): KeptNotes {
    return { doc: this.doc.toJSON() as object, version: this.count, steps: [...this.steps] };
  }

  /** Steps after a version; undefined where they are no longer known. */
  since(version: number): readonly NoteStep[] | undefined {
    const missed = this.count - version;
    if (missed < 0 || missed > this.steps.length) return undefined;
    return missed === 0 ? [] : this.steps.slice(-missed);
  }

  /**
   * Takes in steps that were made on `version`. Returns whether they were; not where that is not how the notes stand now.
   * Throws NotesError where they cannot be done; then none is.
   */
  take(version: number, steps: readonly object[], client: string): boolean {
    if (version !== this.count) return false;
    let { doc } = this;
    for (const step of steps) doc = applied(doc, step);
    if (doc.nodeSize > MOST_NOTES) throw new NotesError('notes-full');
    this.doc = doc;
    this.count += steps.length;
    this.steps.push(...steps.map((step) => ({ step, client })));
    this.steps.splice(0, Math.max(0, this.steps.length - MOST_STEPS));
    return true;
  }
}

function applied(doc: Node, json: object): Node {
  try {
    const { doc: after, failed } = Step.fromJSON(notesSchema, json).apply(doc);
    if (!after || failed !== null) throw new RangeError(failed ?? 'no document');
    after.check();
    if (depthOf(after) > DEEPEST) throw new RangeError('too deep');
    return after;
  } catch {
    // What exactly is wrong with a made-up step is nobody's to know.
    throw new NotesError('notes-bad');
  }
}

function depthOf(node: Node): number {
  let deepest = 0;
  node.forEach((child) => {
    deepest = Math.max(deepest, depthOf(child));
  });
  return deepest + 1;
}
