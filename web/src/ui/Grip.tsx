import type { HTMLAttributes, ReactNode } from 'react';

interface GripProps {
  label: string;
  /** Its middle, CSS pixels. */
  left: number;
  top: number;
  icon: ReactNode;
  handlers: HTMLAttributes<HTMLButtonElement>;
}

/** Something to take hold of, large enough for a finger. */
export function Grip({ label, left, top, icon, handlers }: GripProps) {
  return (
    <button
      type="button"
      aria-label={label}
      title={label}
      {...handlers}
      style={{
        left: `clamp(1.6rem, ${left}px, calc(100% - 1.6rem))`,
        top: `clamp(1.6rem, ${top}px, calc(100% - 1.6rem))`,
      }}
      className="pointer-events-auto absolute grid size-11 -translate-1/2 cursor-grab touch-none place-items-center rounded-full border-2 border-board bg-paper text-board shadow-lg"
    >
      {icon}
    </button>
  );
}
