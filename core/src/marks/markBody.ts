import type { Mark } from './mark.js';

type Own<M> = M extends Mark
  ? Omit<
      M,
      | 'id'
      | 'page'
      | 'author'
      | 'space'
      | 'order'
      | 'locked'
      | 'group'
      | 'alt'
      | 'createdAt'
      | 'pane'
      | 'credit'
      | 'rule'
      | 'hidden'
      | 'folded'
      | 'standIn'
    >
  : never;

/** What a mark shows, whoever and wherever it is for. */
export type MarkBody = Own<Mark>;
