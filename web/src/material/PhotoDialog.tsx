import { FORMATS } from '@doodla/core';
import type { Corners, Photo } from '@doodla/core/photo';
import { releaseProxy, wrap } from 'comlink';
import { useEffect, useRef, useState } from 'react';
import { preparePicture } from '../pictures/preparePicture';
import { Button } from '../ui/Button';
import { Tick } from '../ui/Tick';
import { Problem } from '../ui/Problem';
import { Modal } from '../ui/Modal';
import type { PageDesk } from '../room/pageDesk';
import type { PhotoWorker } from './photo.worker';
import { takeArrow } from '../ui/arrowKeys';
import { useDrag } from '../ui/useDrag';
import { t } from '../words';

/** Corners to begin with, as parts of the photo. */
const START: Corners = [0.06, 0.06, 0.94, 0.06, 0.94, 0.94, 0.06, 0.94];
const NAMES = [
  t('material.upperLeft'),
  t('material.upperRight'),
  t('material.lowerRight'),
  t('material.lowerLeft'),
];
/** How far an arrow key moves a corner, as a part of the photo. */
const KEY_STEP = 0.005;

/** Makes a page of a photographed worksheet: straightened by its four corners, its paper made white. */
export default function PhotoDialog({ desk, onClose }: { desk: PageDesk; onClose(): void }) {
  const chooser = useRef<HTMLInputElement>(null);
  const [photo, setPhoto] = useState<ImageBitmap>();
  const [corners, setCorners] = useState<Corners>(START);
  const [clean, setClean] = useState(true);
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string>();

  const fail = (error: Error) => {
    setBusy(false);
    setProblem(error.message);
  };
  const choose = async (file: File | undefined) => {
    if (!file) return;
    setProblem(undefined);
    setPhoto(await createImageBitmap((await preparePicture(file)).blob));
    setCorners(START);
  };
  const make = async () => {
    if (!photo) return;
    setBusy(true);
    const blob = await sheetOf(photo, corners, clean);
    const { material, width, height } = await desk.pictureActions.store(blob);
    const scale = Math.sqrt((FORMATS.a4.width * FORMATS.a4.height) / (width * height));
    const sheet = { width: width * scale, height: height * scale };
    const { page } = desk;
    if (page) desk.pageActions.add({ ...sheet, surface: { kind: 'picture', material } }, page.id, 'after');
    onClose();
  };
  return (
    <Modal
      title={t('material.aPhotoOfAWorksheet')}
      description={t('material.putTheFourDotsOn')}
      open
      onOpenChange={onClose}
    >
      <input
        ref={chooser}
        type="file"
        accept="image/*,.heic,.heif"
        capture="environment"
        aria-label={t('material.chooseAPhoto')}
        className="sr-only"
        tabIndex={-1}
        onChange={(event) => void choose(event.target.files?.[0]).catch(fail)}
      />
      {photo && <CornerChooser photo={photo} corners={corners} onChange={setCorners} />}
      <Problem>{problem}</Problem>
      <Tick checked={clean} onChange={setClean}>
        {t('material.makeThePaperWhite')}
      </Tick>
      <div className="flex flex-wrap gap-3">
        <Button onClick={() => chooser.current!.click()}>{t('material.chooseAPhoto2')}</Button>
        <Button look="main" disabled={!photo || busy} onClick={() => void make().catch(fail)}>
          {busy ? t('material.straightening') : t('material.makeAPageOfIt')}
        </Button>
      </div>
    </Modal>
  );
}

interface CornerChooserProps {
  photo: ImageBitmap;
  corners: Corners;
  onChange(corners: Corners): void;
}

function CornerChooser({ photo, corners, onChange }: CornerChooserProps) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const target = canvas.current!;
    target.width = photo.width;
    target.height = photo.height;
    target.getContext('2d')!.drawImage(photo, 0, 0);
  }, [photo]);
  const move = (n: number, x: number, y: number) => {
    const within = (value: number) => Math.min(1, Math.max(0, value));
    onChange(
      corners.map((value, i) =>
        i === 2 * n ? within(x) : i === 2 * n + 1 ? within(y) : value,
      ) as unknown as Corners,
    );
  };
  const drag = useDrag({
    begin: (event) => Number(event.currentTarget.dataset.corner),
    move: (event, n) => {
      const box = canvas.current!.getBoundingClientRect();
      move(n, (event.clientX - box.left) / box.width, (event.clientY - box.top) / box.height);
    },
  });
  const outline = [0, 1, 2, 3].map((n) => `${corners[2 * n]! * 100},${corners[2 * n + 1]! * 100}`).join(' ');
  return (
    <div className="relative mx-auto mb-3 w-fit touch-none">
      <canvas ref={canvas} className="block max-h-[50dvh] max-w-full rounded-lg" />
      <svg
        viewBox="0 0 100 100"
        preserveAspectRatio="none"
        className="pointer-events-none absolute inset-0 size-full"
      >
        <polygon
          points={outline}
          fill="none"
          stroke="#7a5600"
          strokeWidth={3}
          vectorEffect="non-scaling-stroke"
        />
      </svg>
      {NAMES.map((name, n) => (
        <button
          key={name}
          type="button"
          aria-label={t('material.cornerOfThePaper', { name })}
          className="absolute -mt-5 -ml-5 grid size-10 cursor-move touch-none place-items-center"
          style={{ left: `${corners[2 * n]! * 100}%`, top: `${corners[2 * n + 1]! * 100}%` }}
          data-corner={n}
          {...drag}
          onKeyDown={(event) => {
            const arrow = takeArrow(event);
            if (arrow)
              move(n, corners[2 * n]! + arrow[0] * KEY_STEP, corners[2 * n + 1]! + arrow[1] * KEY_STEP);
          }}
        >
          <span className="size-5 rounded-full border-3 border-board bg-paper" />
        </button>
      ))}
    </div>
  );
}

/** The straightened sheet as JPEG, computed in a worker. Throws an error with a sentence. */
async function sheetOf(photo: ImageBitmap, corners: Corners, clean: boolean): Promise<Blob> {
  const { width, height } = photo;
  const canvas = new OffscreenCanvas(width, height);
  const ctx = canvas.getContext('2d')!;
  ctx.drawImage(photo, 0, 0);
  const { data } = ctx.getImageData(0, 0, width, height);
  const thread = new Worker(new URL('./photo.worker.ts', import.meta.url), { type: 'module' });
  const worker = wrap<PhotoWorker>(thread);
  try {
    const inPixels = corners.map((value, i) => value * (i % 2 === 0 ? width : height)) as unknown as Corners;
    const sheet: Photo = await worker.straighten({ width, height, data }, inPixels, clean).catch(() => {
      throw new Error(t('material.theseCornersEncloseNothingPlease'));
    });
    const made = new OffscreenCanvas(sheet.width, sheet.height);
    made.getContext('2d')!.putImageData(new ImageData(sheet.data, sheet.width, sheet.height), 0, 0);
    return await made.convertToBlob({ type: 'image/jpeg', quality: 0.92 });
  } finally {
    worker[releaseProxy]();
    thread.terminate();
  }
}
