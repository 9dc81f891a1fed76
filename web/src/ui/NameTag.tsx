import { initialsOf, NAME_DASHES } from '@doodla/core';
import type { Person } from '@doodla/core';

/** Initials in a ring: its colour and dash tell who somebody is. */
export function NameTag({ name, colour, dash }: Pick<Person, 'name' | 'colour' | 'dash'>) {
  return (
    <svg viewBox="0 0 32 32" aria-hidden className="size-8 shrink-0 compact:in-data-[bar=student]:size-4">
      <circle
        cx="16"
        cy="16"
        r="14"
        fill="white"
        stroke={colour}
        strokeWidth="3"
        strokeDasharray={NAME_DASHES[dash]}
      />
      <text x="16" y="21" textAnchor="middle" fontSize="13" fontWeight="bold" fill={colour}>
        {initialsOf(name)}
      </text>
    </svg>
  );
}
