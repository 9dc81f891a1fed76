import type { AnswerRule } from './answerRule.js';
import type { StandIn } from './standIn.js';

/** Whose marks: the whole class, one table (group), or one student's own copy. */
export type Space = 'class' | `table:${string}` | `student:${string}`;

/** What all marks have, whatever their kind. */
export interface SharedFields {
  id: string;
  page: string;
  /** Id of the person who made it. */
  author: string;
  space: Space;
  /** Fractional index: later marks lie on top. */
  order: string;
  locked: boolean;
  /** Marks of one group are selected together. */
  group: string | null;
  /** What it shows, for those who cannot see it; null where nobody has said. */
  alt: string | null;
  /** Milliseconds since 1970-01-01 UTC. */
  createdAt: number;
  /** What whoever made it is called, where it was made elsewhere, such as in another program. */
  credit?: string;
  /** The part of a shown screen that it was made on; see `live/panes`. */
  pane?: number;
  /** What it does in a class, and what may be done with it; see `answers`. */
  rule?: AnswerRule | null;
  /** Whether a class does not see it until something shows it. */
  hidden?: boolean;
  /** What it stands for, where answering has made it. */
  standIn?: StandIn;
}

/** Fields that never change. */
export type FixedField =
  'id' | 'kind' | 'page' | 'author' | 'space' | 'createdAt' | 'credit' | 'pane' | 'standIn';
