const LOOK =
  'z-40 max-h-[min(94dvh,var(--radix-popover-content-available-height))] w-66 overflow-auto rounded-2xl border-2 border-board-line bg-board p-3 text-paper shadow-xl compact:w-[min(100vw-1rem,26rem)] compact:p-2';

/** How a sheet of the tools looks; on a hand-held screen it leaves what is being written on in sight. */
export const SHEET = `${LOOK} compact:max-h-[min(60dvh,var(--radix-popover-content-available-height))]`;

/** How one looks that is only opened to take something from it. */
export const CHOOSING_SHEET = LOOK;
