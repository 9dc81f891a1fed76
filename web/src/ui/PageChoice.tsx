import { listOfPages, pagesOfList } from '@doodla/core';
import { Check } from 'lucide-react';
import { useEffect, useRef } from 'react';
import { Button } from './Button';
import { classes } from './classes';
import { TextField } from './TextField';
import { useNear } from './useNear';
import { t } from '../words';

/** Width of a small picture, CSS pixels. */
const WIDTH = 116;

/** Draws a small picture of a page, by its index from 0, `width` device pixels wide. */
export type DrawPage = (canvas: HTMLCanvasElement, index: number, width: number) => Promise<void>;

interface PageChoiceProps {
  count: number;
  /** A list such as `1-3, 7`; empty for all. */
  value: string;
  onChange(list: string): void;
  draw: DrawPage;
}

/** Some pages of several, chosen by their pictures or by a list of their numbers. */
export function PageChoice({ count, value, onChange, draw }: PageChoiceProps) {
  const last = useRef(0);
  const pages = pagesOfList(value, count);
  const chosen = new Set(value.trim() === '' ? [] : pages);

  const press = (index: number, withAllBetween: boolean) => {
    const [from, to] = withAllBetween ? [last.current, index].sort((a, b) => a - b) : [index, index];
    const isOn = !chosen.has(index);
    last.current = index;
    const changed = Array.from({ length: count }, (_, i) => i).filter((i) =>
      i >= from! && i <= to! ? isOn : chosen.has(i),
    );
    onChange(listOfPages(changed));
  };

  return (
    <div>
      <TextField
        label={t('ui.whichPagesAllIfLeft')}
        placeholder="1-3, 7"
        value={value}
        error={pages ? undefined : t('ui.thereArePagesNameSome', { count })}
        onChange={(event) => onChange(event.target.value)}
      />
      <div className="mb-3 flex flex-wrap items-center justify-between gap-3">
        <p role="status">
          {chosen.size === 0
            ? t('ui.allPages', { count })
            : t('ui.someOfPages', { some: chosen.size, count })}
        </p>
        <Button disabled={value === ''} onClick={() => onChange('')}>
          {t('ui.chooseAnew')}
        </Button>
      </div>
      <ol
        aria-label={t('ui.pagesToChooseFrom')}
        className="mb-5 grid max-h-[36dvh] grid-cols-[repeat(auto-fill,minmax(7.75rem,1fr))] gap-2 overflow-y-auto rounded-xl bg-paper-dim p-2"
      >
        {Array.from({ length: count }, (_, index) => (
          <Tile
            key={index}
            index={index}
            chosen={chosen.has(index)}
            draw={draw}
            onPress={(withAllBetween) => press(index, withAllBetween)}
          />
        ))}
      </ol>
    </div>
  );
}

interface TileProps {
  index: number;
  chosen: boolean;
  draw: DrawPage;
  onPress(withAllBetween: boolean): void;
}

function Tile({ index, chosen, draw, onPress }: TileProps) {
  const item = useRef<HTMLLIElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const near = useNear(item);
  useEffect(() => {
    const target = canvas.current!;
    // A small picture that cannot be drawn stays empty; its number is there to choose by.
    if (near) void draw(target, index, WIDTH * window.devicePixelRatio).catch(() => undefined);
    return () => {
      target.width = 0;
    };
  }, [near, index, draw]);

  return (
    <li ref={item} className="[content-visibility:auto]">
      <button
        type="button"
        aria-pressed={chosen}
        aria-label={t('common.page', { number: index + 1 })}
        onClick={({ shiftKey }) => onPress(shiftKey)}
        className={classes(
          'relative flex h-full min-h-28 w-full flex-col items-center justify-between rounded-xl border-4 p-1',
          chosen ? 'border-board bg-white' : 'border-transparent hover:border-paper-line',
        )}
      >
        <canvas ref={canvas} className="max-h-36 max-w-full shadow" />
        <span className="text-sm">{index + 1}</span>
        {chosen && (
          <span className="absolute top-1 right-1 rounded-full bg-board p-1 text-paper">
            <Check aria-hidden size={16} />
          </span>
        )}
      </button>
    </li>
  );
}
