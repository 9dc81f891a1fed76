import type { Explanation, Part } from '@doodla/core';
import { wholeOf } from '@doodla/core/explain';
import { useMemo, useState } from 'react';

/** What of an explanation plays, and how that is changed. */
export interface Parts {
  readonly now: readonly Part[];
  /** Whether it plays otherwise than it was recorded. */
  readonly isMended: boolean;
  readonly canUndo: boolean;
  readonly canRedo: boolean;
  change(parts: Part[]): void;
  /** As it was recorded. */
  reset(): void;
  undo(): void;
  redo(): void;
}

/** States of the parts, each kept as soon as it is there; `keep` tells by itself what it could not keep. */
export function useParts(
  { parts, takes }: Pick<Explanation, 'parts' | 'takes'>,
  keep: (parts: Part[] | null) => void,
): Parts {
  const [{ states, at }, setHistory] = useState({ states: [parts], at: 0 });
  const state = states[at];
  const now = useMemo(() => state ?? takes.map(wholeOf), [state, takes]);
  const go = (to: number) => {
    setHistory({ states, at: to });
    keep(states[to]!);
  };
  const set = (next: Part[] | null) => {
    setHistory({ states: [...states.slice(0, at + 1), next], at: at + 1 });
    keep(next);
  };
  return {
    now,
    isMended: states[at] !== null,
    canUndo: at > 0,
    canRedo: at < states.length - 1,
    change: set,
    reset: () => set(null),
    undo: () => go(at - 1),
    redo: () => go(at + 1),
  };
}
