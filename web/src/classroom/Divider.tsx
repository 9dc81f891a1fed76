import { X } from 'lucide-react';
import type { KeyboardEvent, PointerEvent } from 'react';
import { useStore } from '../store/useStore';
import { IconButton } from '../ui/IconButton';
import { useDrag } from '../ui/useDrag';
import type { Workspace } from '../room/workspace';
import { t } from '../words';

const LIMITS = { least: 0.15, most: 0.85 };
const KEY_STEP = 0.05;

/** Between two pages: moved by whoever teaches, and the way back to one page. */
export default function Divider({ workspace, at }: { workspace: Workspace; at: number }) {
  const { main: desk } = workspace;
  const pages = useStore(desk.pages);
  const side = useStore(workspace.side);
  useStore(desk.classroom!.scene);
  const leads = desk.isTeacher;
  const { split } = desk.classroom!.scene.get();
  const put = (value: number, moving: boolean) => {
    if (!split) return;
    const within = Math.min(LIMITS.most, Math.max(LIMITS.least, value));
    desk.classroom!.setScene({ split: { ...split, at: within } }, moving);
  };
  const shareOf = (event: PointerEvent<HTMLElement>) => {
    const room = event.currentTarget.parentElement!.parentElement!.getBoundingClientRect();
    return (event.clientX - room.left) / room.width;
  };
  const drag = useDrag({
    begin: () => undefined,
    move: (event) => put(shareOf(event), true),
    end: (event) => put(shareOf(event), false),
  });
  const onKeyDown = (event: KeyboardEvent) => {
    const step = event.key === 'ArrowLeft' ? -KEY_STEP : event.key === 'ArrowRight' ? KEY_STEP : 0;
    if (step === 0) return;
    event.preventDefault();
    event.stopPropagation();
    put(at + step, false);
  };
  return (
    <div className="absolute inset-y-0 z-10 w-0" style={{ left: `${at * 100}%` }}>
      <div className="absolute inset-y-0 -left-0.5 w-1 bg-paper" />
      {leads && (
        <div
          role="slider"
          tabIndex={0}
          aria-label={t('classroom.dividerBetweenTheTwoPages')}
          aria-orientation="horizontal"
          aria-valuemin={15}
          aria-valuemax={85}
          aria-valuenow={Math.round(at * 100)}
          onKeyDown={onKeyDown}
          {...drag}
          className="absolute top-1/2 h-24 w-11 -translate-1/2 cursor-col-resize touch-none rounded-full border-4 border-board bg-paper shadow-lg"
        />
      )}
      {leads && split && (
        <div className="absolute bottom-16 flex w-max -translate-x-1/2 items-center gap-1 rounded-2xl bg-board forced-colors:border-2 p-1 text-paper shadow-xl">
          <select
            aria-label={t('classroom.pageBeside')}
            value={side?.pageId.get()}
            onChange={(event) => desk.classroom!.setScene({ split: { ...split, page: event.target.value } })}
            className="h-11 max-w-40 rounded-xl bg-board-light px-2"
          >
            {pages.map(({ id, title }, i) => (
              <option key={id} value={id}>
                {i + 1}
                {title && `: ${title}`}
              </option>
            ))}
          </select>
          <IconButton
            label={t('classroom.onePageAgain')}
            icon={<X aria-hidden size={20} />}
            onClick={() => desk.classroom!.setScene({ split: null })}
          />
        </div>
      )}
    </div>
  );
}
