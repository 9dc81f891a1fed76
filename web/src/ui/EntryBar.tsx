import type { ComponentType, ReactNode } from 'react';
import { Button } from './Button';
import { classes } from './classes';
import type { Entry } from './entries';

/** A button of a bar that opens or does something, or a part that is a menu or switch of its own. */
export type BarEntry<Props> =
  | (Entry<Props> & {
      /** What the button says, and its name where it says none or a short one. */
      text?(props: Props): ReactNode;
      name?(props: Props): string;
      /** Whether it is what one came for. */
      readonly main?: boolean;
    })
  | { readonly id: string; when?(props: Props): boolean; readonly Part: ComponentType<Props> };

interface EntryBarProps<Props> {
  entries: readonly BarEntry<Props>[];
  /** What the entries work on. */
  props: Props;
  onOpen(id: string): void;
}

/** A bar of entries; what they open is shown by whoever has it. */
export function EntryBar<Props extends object>({ entries, props, onOpen }: EntryBarProps<Props>) {
  return entries
    .filter((entry) => entry.when?.(props) ?? true)
    .map((entry) => <BarPart key={entry.id} entry={entry} props={props} onOpen={onOpen} />);
}

interface BarPartProps<Props> extends Omit<EntryBarProps<Props>, 'entries'> {
  entry: BarEntry<Props>;
}

function BarPart<Props extends object>({ entry, props, onOpen }: BarPartProps<Props>) {
  if ('Part' in entry) return <entry.Part {...props} />;
  return (
    <Button
      look="onBoard"
      icon={entry.icon}
      className={classes(entry.main && '!border-paper !bg-paper !text-board')}
      {...(entry.name && { 'aria-label': entry.name(props) })}
      onClick={() => ('run' in entry ? entry.run(props) : onOpen(entry.id))}
    >
      {entry.name && <span className="hidden compact:inline">{entry.label}</span>}
      {entry.text ? entry.text(props) : entry.label}
    </Button>
  );
}

/** The entry of a bar that opens something under a name. */
export function entryToOpen<Props>(
  entries: readonly BarEntry<Props>[],
  id: string | undefined,
): Entry<Props> | undefined {
  return entries.find((entry): entry is Entry<Props> => 'Sheet' in entry && entry.id === id);
}
