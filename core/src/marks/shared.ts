import type { AnswerRule } from './answerRule.js';

/** Whose marks: the whole class, one table (group), or one student's own copy. */
export type Space = 'class' | `table:${string}` | `student:${string}`;

/** Of a mark that stands for another: what answering has made of that one, in its space. */
export interface StandIn {
  /** The mark that it stands for. */
  for: string;
  /** Whether it was pulled from that one, which stays where it is. */
  copy?: boolean;
  /** The mark by whose rule it is as it is, where that is not the one that it stands for. */
  by?: string;
  /** The place that it lies in. */
  at?: string;
  /** How often it was put where it does not belong, or filled in wrongly. */
  tries: number;
  /** How often it was tapped, where that is counted. */
  taps: number;
  /** When it was first answered, milliseconds since 1970-01-01 UTC. */
  since?: number;
}

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
  /** The idea of a map under which it is folded away; it is seen again where that is gone. */
  folded?: string | null;
  /** What it stands for, where answering has made it. */
  standIn?: StandIn;
}

/** Fields that never change. */
export type FixedField =
  'id' | 'kind' | 'page' | 'author' | 'space' | 'createdAt' | 'credit' | 'pane' | 'standIn';
