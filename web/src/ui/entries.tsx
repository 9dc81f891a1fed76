import type { ComponentType, ReactNode } from 'react';
import { Suspense } from 'react';

interface Named<Props> {
  readonly id: string;
  readonly label: string;
  readonly icon?: ReactNode;
  /** Whether it is there; always, if it does not say. */
  when?(props: Props): boolean;
  /** Whether it can be chosen now; always, if it does not say. */
  enabled?(props: Props): boolean;
  /** Whether it takes something away. */
  readonly alarming?: boolean;
}

interface Opening<Props> {
  /** What it opens: `lazy`, so that it is fetched when it is opened. */
  readonly Sheet: ComponentType<Props & { onClose(): void }>;
}

interface Doing<Props> {
  /** Does it at once. */
  run(props: Props): void;
}

/** One entry of a menu or bar; `Props` are what it works on. */
export type Entry<Props> = Named<Props> & (Opening<Props> | Doing<Props>);

/** What an opened entry shows; nothing where none is open. */
export function OpenedEntry<Props extends object>({
  entry,
  props,
  onClose,
}: {
  entry: Entry<Props> | undefined;
  props: Props;
  onClose(): void;
}) {
  if (!entry || !('Sheet' in entry)) return null;
  const { Sheet } = entry;
  return (
    <Suspense>
      <Sheet {...props} onClose={onClose} />
    </Suspense>
  );
}
