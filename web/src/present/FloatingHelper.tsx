import { ChevronLeft, ChevronRight, Crop, Pen, PenOff, PictureInPicture2, Timer } from 'lucide-react';
import { useEffect, useState } from 'react';
import type { ReactNode } from 'react';
import { createPortal } from 'react-dom';
import { useStore } from '../store/useStore';
import { countdown } from '../focus/focusActions';
import { IconButton } from '../ui/IconButton';
import type { PageDesk } from '../room/pageDesk';
import { pensLabel } from '../ui/pensLabel';
import { t } from '../words';

interface PictureInPicture {
  requestWindow(size: { width: number; height: number }): Promise<Window>;
}

const SIZE = { width: 360, height: 84 };

/** Offers a small window that stays on top of other programs, where the browser has such a thing. */
export default function FloatingHelper({ desk }: { desk: PageDesk }) {
  const [shown, setShown] = useState<Window>();
  const { documentPictureInPicture } = window as unknown as {
    documentPictureInPicture?: PictureInPicture;
  };
  useEffect(() => () => shown?.close(), [shown]);
  if (!documentPictureInPicture) return null;
  const open = async () => {
    const opened = await documentPictureInPicture.requestWindow(SIZE);
    takeStyles(opened);
    opened.addEventListener('pagehide', () => setShown(undefined));
    setShown(opened);
  };
  if (shown) return createPortal(<Helper desk={desk} />, shown.document.body);
  return (
    <div className="absolute bottom-2 left-2 z-10 rounded-2xl bg-board forced-colors:border-2 text-paper group-data-presenting/view:hidden compact:hidden">
      <IconButton
        label={t('present.aSmallWindowOverOther')}
        icon={<PictureInPicture2 aria-hidden size={20} />}
        tooltipSide="right"
        onClick={() => void open().catch((error: Error) => desk.tellProblem(error.message))}
      />
    </div>
  );
}

/** Page turn, grab, pens and time, for while another program is in front. */
function Helper({ desk }: { desk: PageDesk }) {
  const state = useStore(desk.classroom!.state);
  const pages = useStore(desk.pages);
  const current = useStore(desk.pageId);
  const at = pages.findIndex(({ id }) => id === current);
  const pensUp = state?.pensUp ?? false;
  return (
    <div
      role="toolbar"
      aria-label={t('common.class')}
      className="flex h-full items-center justify-center gap-1 bg-board p-2 text-paper"
    >
      <Tool label={t('common.previousPage')} onClick={() => desk.turnBy(-1)}>
        <ChevronLeft aria-hidden />
      </Tool>
      <span className="min-w-12 text-center font-bold">
        {at + 1} / {pages.length}
      </span>
      <Tool label={t('common.nextPage')} onClick={() => desk.turnBy(1)}>
        <ChevronRight aria-hidden />
      </Tool>
      <Tool label={pensLabel(pensUp)} onClick={() => desk.classroom!.setPens(!pensUp)}>
        {pensUp ? <Pen aria-hidden /> : <PenOff aria-hidden />}
      </Tool>
      <Tool label={t('present.grabAPictureOntoThe')} onClick={() => void grab(desk)}>
        <Crop aria-hidden />
      </Tool>
      <Tool label={t('present.threeMinutesOrTakeThe')} onClick={() => countdown(desk)}>
        <Timer aria-hidden />
      </Tool>
    </div>
  );
}

function Tool({ label, onClick, children }: { label: string; onClick(): void; children: ReactNode }) {
  return <IconButton label={label} icon={children} onClick={onClick} tooltipSide="none" />;
}

async function grab(desk: PageDesk): Promise<void> {
  const { grabToNextPage } = await import('../handout/grabToNextPage');
  await grabToNextPage(desk).catch((error: Error) => desk.tellProblem(error.message));
}

/** Styles do not come along into a window of its own. */
function takeStyles(opened: Window): void {
  for (const sheet of document.querySelectorAll('style, link[rel=stylesheet]'))
    opened.document.head.append(sheet.cloneNode(true));
  opened.document.title = 'Doodla';
}
