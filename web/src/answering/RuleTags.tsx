import type { Mark } from '@doodla/core';
import { markBounds } from '@doodla/core';
import { centreOf } from '@doodla/core/answers';
import { Copy, EyeOff, Inbox, Keyboard, Move, Pointer, SlidersHorizontal, Spline } from 'lucide-react';
import type { PageDesk } from '../room/pageDesk';
import type { Stage } from '../stage/stage';
import { useStore } from '../store/useStore';
import { t } from '../words';
import { namedBy, taggedMarks, tagsOf } from './tags';

const TAGS = {
  tap: 'answers.tagTap',
  moves: 'answers.tagMoves',
  takes: 'answers.tagTakes',
  fill: 'answers.tagFill',
  pair: 'answers.tagPair',
  trace: 'answers.tagTrace',
  sets: 'answers.tagSets',
  hidden: 'answers.tagHidden',
} as const;
const SIGNS = {
  tap: Pointer,
  moves: Move,
  takes: Inbox,
  fill: Keyboard,
  pair: Copy,
  trace: Spline,
  sets: SlidersHorizontal,
  hidden: EyeOff,
};

interface RuleTagsProps {
  originals: readonly Mark[];
  stage: Stage;
  desk: PageDesk;
}

/** What the marks of a page do, by small tags at them and lines to what they name. */
export function RuleTags({ originals: all, stage, desk }: RuleTagsProps) {
  const { scale, x, y } = useStore(stage.view);
  const originals = taggedMarks(all, useStore(desk.selection.ids));
  const byId = new Map(originals.map((mark) => [mark.id, mark]));
  const lines = originals.flatMap((mark) =>
    namedBy(mark).flatMap((id) => {
      const other = byId.get(id);
      return other ? [{ key: `${mark.id} ${id}`, from: centreOf(mark), to: centreOf(other) }] : [];
    }),
  );
  return (
    <div className="absolute top-0 left-0" style={{ transform: `translate(${x}px, ${y}px)` }}>
      <svg aria-hidden className="absolute overflow-visible" width={1} height={1}>
        {lines.map(({ key, from, to }) => (
          <line
            key={key}
            x1={from[0] * scale}
            y1={from[1] * scale}
            x2={to[0] * scale}
            y2={to[1] * scale}
            stroke="var(--color-board)"
            strokeWidth={2}
            strokeDasharray="2 6"
            strokeLinecap="round"
          />
        ))}
      </svg>
      {originals.map((mark) => {
        const tags = tagsOf(mark);
        const bounds = markBounds(mark);
        if (tags.length === 0) return null;
        return (
          <span
            key={mark.id}
            role="img"
            aria-label={tags.map((tag) => t(TAGS[tag])).join(', ')}
            className="absolute flex -translate-x-1/3 -translate-y-full gap-1 rounded-full bg-board px-1.5 py-0.5 text-paper shadow"
            style={{ left: bounds.x * scale, top: bounds.y * scale }}
          >
            {tags.map((tag) => {
              const Sign = SIGNS[tag];
              return <Sign key={tag} aria-hidden size={14} />;
            })}
          </span>
        );
      })}
    </div>
  );
}
