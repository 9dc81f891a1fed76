import type { Focus, Spotlight } from '@doodla/core';
import { FACTORS, SPOTLIGHT_SHAPES } from '@doodla/core';
import { Circle, Eye, EyeOff, ListEnd, RectangleHorizontal, X } from 'lucide-react';
import { Button } from '../ui/Button';
import { IconButton } from '../ui/IconButton';
import type { PageDesk } from '../room/pageDesk';
import { t } from '../words';

const NAMES: Record<Focus['kind'], string> = {
  spotlight: t('common.spotlight'),
  cover: t('common.cover'),
  magnifier: t('common.magnifier'),
  enlarged: t('focus.enlarged'),
};

/** What can be set of what the class's eye is led to, and the one action that closes it. */
export function FocusBar({ focus, desk }: { focus: Focus; desk: PageDesk }) {
  const set = (changed: Focus | null, moving = false) => desk.classroom!.setScene({ focus: changed }, moving);
  return (
    <div
      role="group"
      aria-label={NAMES[focus.kind]}
      data-bar="focus"
      className="pointer-events-auto absolute bottom-17 group-has-[[data-bar=screen]]/view:bottom-32 group-has-[[data-bar=recording]]/view:bottom-32 group-has-[[data-bar=explaining]]/view:bottom-40 left-1/2 z-20 flex max-w-[calc(100%-1rem)] -translate-x-1/2 flex-wrap items-center justify-center gap-1 rounded-2xl bg-board forced-colors:border-2 p-1 text-paper shadow-xl"
    >
      <span className="px-2 font-bold">{NAMES[focus.kind]}</span>
      {focus.kind === 'spotlight' && <SpotlightSettings focus={focus} set={set} />}
      {focus.kind === 'magnifier' && (
        <Range
          label={t('focus.howManyTimesLarger')}
          value={focus.factor}
          min={FACTORS.least}
          max={FACTORS.most}
          step={0.5}
          told={`${focus.factor} ×`}
          onChange={(factor, moving) => set({ ...focus, factor }, moving)}
        />
      )}
      {focus.kind === 'cover' && (
        <Button
          look="onBoard"
          icon={<ListEnd aria-hidden size={18} />}
          onClick={() => {
            void import('./nextStop')
              .then(({ nextStop }) => nextStop(desk, focus))
              .then((next) => set(next ?? null))
              .catch(() => desk.tellProblem(t('focus.theLinesOfThisPage')));
          }}
        >
          {t('common.nextLine')}
        </Button>
      )}
      <IconButton
        label={focus.shared ? t('common.theClassSeesThis') : t('focus.onlyYouSeeThis')}
        active={focus.shared}
        icon={focus.shared ? <Eye aria-hidden size={20} /> : <EyeOff aria-hidden size={20} />}
        onClick={() => set({ ...focus, shared: !focus.shared })}
      />
      <Button
        look="onBoard"
        icon={<X aria-hidden size={18} />}
        aria-keyshortcuts="Escape"
        onClick={() => set(null)}
      >
        {focus.kind === 'enlarged' ? t('focus.backToThePage') : t('common.close')}
      </Button>
    </div>
  );
}

function SpotlightSettings({
  focus,
  set,
}: {
  focus: Spotlight;
  set(changed: Spotlight, moving?: boolean): void;
}) {
  const icons = {
    round: <Circle aria-hidden size={20} />,
    rectangle: <RectangleHorizontal aria-hidden size={20} />,
  };
  return (
    <>
      {SPOTLIGHT_SHAPES.filter((shape) => shape !== 'free').map((shape) => (
        <IconButton
          key={shape}
          label={shape === 'round' ? t('focus.round') : t('focus.rectangular')}
          active={focus.shape === shape}
          icon={icons[shape]}
          onClick={() => set({ ...focus, shape })}
        />
      ))}
      <Range
        label={t('focus.howDarkTheRestIs')}
        value={focus.dark}
        min={0.2}
        max={1}
        step={0.05}
        told={`${Math.round(focus.dark * 100)} %`}
        onChange={(dark, moving) => set({ ...focus, dark }, moving)}
      />
    </>
  );
}

interface RangeProps {
  label: string;
  value: number;
  min: number;
  max: number;
  step: number;
  told: string;
  onChange(value: number, moving: boolean): void;
}

function Range({ label, value, told, onChange, ...limits }: RangeProps) {
  return (
    <label className="flex items-center gap-2 px-2 text-sm">
      <input
        type="range"
        aria-label={label}
        aria-valuetext={told}
        {...limits}
        value={value}
        onChange={(event) => onChange(Number(event.target.value), true)}
        onPointerUp={() => onChange(value, false)}
        onKeyUp={() => onChange(value, false)}
        className="h-11 w-28 accent-paper"
      />
      <span className="w-11 tabular-nums">{told}</span>
    </label>
  );
}
