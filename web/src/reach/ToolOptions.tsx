import { PALETTE } from '@doodla/core';
import { Popover } from 'radix-ui';
import { useStore } from '../live/store';
import { classes } from '../ui/classes';
import { TEXT_SIZES, WIDTHS } from '../workspace/penCase';
import type { PenCase } from '../workspace/penCase';
import type { Workspace } from '../workspace/workspace';

interface ToolOptionsProps {
  workspace: Workspace;
  side: 'left' | 'right';
}

/** Colour and width of the tool in hand, opened beside the tools. */
export function ToolOptions({ workspace, side }: ToolOptionsProps) {
  const { penCase } = workspace;
  useStore(penCase);
  const { colour, width } = penCase;
  const disabled = colour === undefined || !workspace.mayWrite;
  return (
    <Popover.Root>
      <Popover.Trigger asChild disabled={disabled}>
        <button
          type="button"
          aria-label="Colour and width"
          className="flex min-h-13 flex-col items-center justify-center gap-1 rounded-xl text-xs text-paper hover:bg-board-light disabled:opacity-40"
        >
          <span
            className="size-6 rounded-full border-2 border-paper"
            style={{ background: colour ?? 'transparent' }}
          />
          {penCase.fixedColour === undefined ? 'Colour' : 'Width'}
        </button>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          side={side}
          sideOffset={14}
          className="z-30 rounded-2xl border-2 border-board-line bg-board p-3 text-paper shadow-xl"
        >
          {penCase.fixedColour === undefined && <Colours penCase={penCase} chosen={colour} />}
          <Widths penCase={penCase} chosen={width} />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

function Colours({ penCase, chosen }: { penCase: PenCase; chosen: string | undefined }) {
  return (
    <div role="radiogroup" aria-label="Colour" className="mb-3 grid grid-cols-3 gap-2">
      {PALETTE.map(({ name, hex }) => (
        <button
          key={hex}
          type="button"
          role="radio"
          aria-checked={hex === chosen}
          aria-label={name}
          title={name}
          onClick={() => penCase.setColour(hex)}
          className={classes(
            'size-11 rounded-full border-2',
            hex === chosen ? 'border-chalk ring-3 ring-chalk' : 'border-paper',
          )}
          style={{ background: hex }}
        />
      ))}
    </div>
  );
}

const WIDTH_NAMES = ['Fine', 'Medium', 'Broad'];
const SIZE_NAMES = ['Small', 'Medium', 'Large'];

function Widths({ penCase, chosen }: { penCase: PenCase; chosen: number | undefined }) {
  const { tool } = penCase.get();
  if (tool === 'eraser') return null;
  const isText = tool === 'text';
  const widths: readonly number[] = isText ? TEXT_SIZES : WIDTHS[tool];
  const names = isText ? SIZE_NAMES : WIDTH_NAMES;
  return (
    <div role="radiogroup" aria-label={isText ? 'Text size' : 'Width'} className="grid grid-cols-3 gap-2">
      {widths.map((width, i) => (
        <button
          key={width}
          type="button"
          role="radio"
          aria-checked={width === chosen}
          aria-label={names[i]}
          onClick={() => penCase.setWidth(width)}
          className={classes(
            'grid size-11 place-items-center rounded-xl border-2',
            width === chosen ? 'border-chalk bg-board-light' : 'border-board-line',
          )}
        >
          {isText ? (
            <span className="leading-none" style={{ fontSize: 12 + i * 8 }}>
              A
            </span>
          ) : (
            <span
              className="w-7 rounded-full bg-paper"
              style={{ height: Math.max(2, width / (tool === 'pen' ? 1 : 2.5)) }}
            />
          )}
        </button>
      ))}
    </div>
  );
}
