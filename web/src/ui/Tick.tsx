import type { ReactNode } from 'react';

interface TickProps {
  checked: boolean;
  onChange(checked: boolean): void;
  children: ReactNode;
}

/** A box to be ticked, with what it means beside it. */
export function Tick({ checked, onChange, children }: TickProps) {
  return (
    <label className="mb-4 flex min-h-11 items-center gap-3">
      <input
        type="checkbox"
        className="size-5"
        checked={checked}
        onChange={(event) => onChange(event.target.checked)}
      />
      {children}
    </label>
  );
}
