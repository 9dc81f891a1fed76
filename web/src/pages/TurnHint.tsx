import { Smartphone, X } from 'lucide-react';
import { useState } from 'react';
import { useStore } from '../store/useStore';
import type { PageDesk } from '../room/pageDesk';
import { windowRoom } from '../ui/windowRoom';
import { t } from '../words';

/** A page this much wider than high is small on a screen that is held upright. */
const WIDE = 1.2;
const KEY = 'doodla.turnHintSeen';
/** What can be turned is touched. */
const CAN_TURN = '(pointer: coarse)';

/** Says once, on a screen that is held upright, that a wide page is larger on one that lies. */
export default function TurnHint({ desk }: { desk: PageDesk }) {
  const { compact, width, height } = useStore(windowRoom);
  useStore(desk.pageId);
  useStore(desk.pages);
  const [seen, setSeen] = useState(() => localStorage.getItem(KEY) !== null);
  const { page } = desk;
  const isSmall = compact && width < height && page !== undefined && page.width > WIDE * page.height;
  if (seen || !isSmall || !matchMedia(CAN_TURN).matches) return null;
  return (
    <div
      role="note"
      className="absolute inset-x-2 bottom-28 z-20 mx-auto flex w-fit items-center gap-2 rounded-2xl bg-board py-0.5 pe-0.5 ps-3 text-paper shadow-xl"
    >
      <Smartphone aria-hidden size={20} className="shrink-0 rotate-90" />
      {t('pages.turnYourPhoneSidewaysTo')}
      <button
        type="button"
        aria-label={t('pages.closeThisTip')}
        onClick={() => {
          localStorage.setItem(KEY, 'yes');
          setSeen(true);
        }}
        className="grid size-11 shrink-0 place-items-center rounded-xl hover:bg-board-hover"
      >
        <X aria-hidden size={20} />
      </button>
    </div>
  );
}
