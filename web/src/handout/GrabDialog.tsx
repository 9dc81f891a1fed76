import type { Rect } from '@doodla/core';
import { nudgedPart, rectFromCorners } from '@doodla/core';
import { useEffect, useRef, useState } from 'react';
import { toast } from 'sonner';
import { canCopyPictures, copyPng } from '../secure/clipboard';
import { Button } from '../ui/Button';
import { Tick } from '../ui/Tick';
import { Problem } from '../ui/Problem';
import { Modal } from '../ui/Modal';
import type { PageDesk } from '../room/pageDesk';
import { cutPicture, grabPicture } from './grabPicture';
import { ontoNextPage } from './grabToNextPage';
import { saveFile } from './saveFile';
import { takeArrow } from '../ui/arrowKeys';
import { useDrag } from '../ui/useDrag';
import { t } from '../words';

/** How far an arrow key moves the part or its corner, of the whole picture. */
const KEY_STEP = 0.05;

const percent = (share: number) => `${Math.round(share * 100)} %`;

const WHOLE: Rect = { x: 0, y: 0, width: 1, height: 1 };
/** A part that was drawn smaller than this was a tap, which chooses the whole again. */
const TAP = 0.02;
/** The part that was taken last; the next picture is often of the same place. */
let lastPart = WHOLE;

/** A picture of what is shown, cut to a region if wanted, to where it is needed. */
export default function GrabDialog({ desk, onClose }: { desk: PageDesk; onClose(): void }) {
  const [withMarks, setWithMarks] = useState(true);
  const [picture, setPicture] = useState<HTMLCanvasElement>();
  const [part, setPart] = useState<Rect>(lastPart);
  const choose = (chosen: Rect) => {
    lastPart = chosen;
    setPart(chosen);
  };
  const [problem, setProblem] = useState<string>();
  useEffect(() => {
    let gone = false;
    grabPicture(desk, withMarks).then(
      (made) => !gone && setPicture(made),
      (error: Error) => setProblem(error.message),
    );
    return () => {
      gone = true;
    };
  }, [desk, withMarks]);

  const use = (what: (png: Blob) => Promise<unknown>) => () => {
    if (!picture) return;
    cutPicture(picture, part)
      .then(what)
      .then(onClose, (error: Error) => setProblem(error.message));
  };
  const copy = async (png: Blob) => {
    await copyPng(png);
    toast(t('handout.thePictureCanBePasted'));
  };
  return (
    <Modal
      title={t('common.grabAPicture')}
      description={t('handout.drawARectangleOnIt')}
      open
      onOpenChange={onClose}
    >
      {picture && <PartChooser picture={picture} part={part} onChange={choose} />}
      <Problem>{problem}</Problem>
      <Tick checked={withMarks} onChange={setWithMarks}>
        {t('handout.withWhatIsWrittenOn')}
      </Tick>
      <div className="flex flex-wrap gap-2">
        {desk.isTeacher && (
          <Button look="main" disabled={!picture} onClick={use((png) => ontoNextPage(desk, png))}>
            {t('handout.ontoANewPage')}
          </Button>
        )}
        <Button disabled={!picture} onClick={use((png) => desk.pictureActions.place([png]))}>
          {t('handout.ontoThisPage')}
        </Button>
        {canCopyPictures() && (
          <Button disabled={!picture} onClick={use(copy)}>
            {t('common.copy')}
          </Button>
        )}
        <Button disabled={!picture} onClick={use(save)}>
          {t('handout.save')}
        </Button>
        <Button disabled={!picture} onClick={use(print)}>
          {t('handout.print')}
        </Button>
      </div>
    </Modal>
  );
}

interface PartChooserProps {
  picture: HTMLCanvasElement;
  part: Rect;
  onChange(part: Rect): void;
}

/** The picture, on which a part is drawn. */
function PartChooser({ picture, part, onChange }: PartChooserProps) {
  const host = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const canvas = host.current!;
    canvas.width = picture.width;
    canvas.height = picture.height;
    canvas.getContext('2d')!.drawImage(picture, 0, 0);
  }, [picture]);
  const at = (event: React.PointerEvent) => {
    const box = host.current!.getBoundingClientRect();
    const within = (value: number) => Math.min(1, Math.max(0, value));
    return {
      x: within((event.clientX - box.left) / box.width),
      y: within((event.clientY - box.top) / box.height),
    };
  };
  const drag = useDrag({
    begin: at,
    move: (event, start) => {
      const now = at(event);
      const drawn = rectFromCorners(start.x, start.y, now.x, now.y);
      onChange(drawn.width < TAP || drawn.height < TAP ? WHOLE : drawn);
    },
  });
  return (
    <div
      className="relative mb-3 cursor-crosshair touch-none overflow-hidden rounded-lg border-2 border-paper-line"
      {...drag}
      role="application"
      tabIndex={0}
      aria-label={t('handout.partOfThePictureWide', {
        number: percent(part.width),
        number2: percent(part.height),
      })}
      onKeyDown={(event) => {
        const arrow = takeArrow(event);
        if (arrow) onChange(nudgedPart(part, arrow[0] * KEY_STEP, arrow[1] * KEY_STEP, event.shiftKey));
      }}
    >
      <canvas
        ref={host}
        aria-label={t('handout.whatIsGrabbed')}
        role="img"
        className="block max-h-[45dvh] w-full object-contain"
      />
      <span
        className="absolute border-3 border-chalk-deep shadow-[0_0_0_999px_rgb(0_0_0/0.35)]"
        style={{
          left: `${part.x * 100}%`,
          top: `${part.y * 100}%`,
          width: `${part.width * 100}%`,
          height: `${part.height * 100}%`,
        }}
      />
    </div>
  );
}

function save(png: Blob): Promise<void> {
  saveFile(png, `grab-${new Date().toISOString().slice(0, 16).replace(/[T:]/g, '-')}.png`);
  return Promise.resolve();
}

/** Prints the picture alone, in a frame that is cleared away afterwards. */
async function print(png: Blob): Promise<void> {
  const frame = document.createElement('iframe');
  frame.style.cssText = 'position:fixed;width:0;height:0;border:0;';
  document.body.append(frame);
  const image = frame.contentDocument!.createElement('img');
  image.style.maxWidth = '100%';
  image.src = URL.createObjectURL(png);
  frame.contentDocument!.body.append(image);
  await image.decode();
  frame.contentWindow!.addEventListener('afterprint', () => {
    URL.revokeObjectURL(image.src);
    frame.remove();
  });
  frame.contentWindow!.print();
}
