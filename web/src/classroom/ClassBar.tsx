import { Button } from '../ui/Button';
import type { BarEntry, InClass } from './classEntries';
import { CLASS_ENTRIES } from './classEntries';

interface ClassBarProps {
  props: InClass;
  onOpen(id: string): void;
}

/** The bar of a class; what its entries open is shown by whoever has it. */
export function ClassBar({ props, onOpen }: ClassBarProps) {
  return CLASS_ENTRIES.filter((entry) => entry.when?.(props) ?? true).map((entry) => (
    <BarPart key={entry.id} entry={entry} props={props} onOpen={onOpen} />
  ));
}

function BarPart({ entry, props, onOpen }: ClassBarProps & { entry: BarEntry }) {
  if ('Part' in entry) return <entry.Part {...props} />;
  return (
    <Button
      look="onBoard"
      icon={entry.icon}
      {...(entry.name && { 'aria-label': entry.name(props) })}
      onClick={() => ('run' in entry ? entry.run(props) : onOpen(entry.id))}
    >
      {entry.text ? entry.text(props) : entry.label}
    </Button>
  );
}
