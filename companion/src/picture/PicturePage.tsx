import type { Rect } from '@doodla/core';
import { rectFromCorners } from '@doodla/core';
import { copyPng } from '@web/secure/clipboard';
import { Button } from '@web/ui/Button';
import { Problem } from '@web/ui/Problem';
import { useDrag } from '@web/ui/useDrag';
import { Copy, Crop, FileText, Image, Printer, School, Undo2 } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { ClassLink } from '../classroom/classLink';
import { pairedBefore } from '../classroom/pairing';
import { saveFile } from '../page/saveFile';
import type { Pictured } from '../shared/messages';
import { say } from '../words';
import type { Sheet } from './sheets';
import { cropped, pdfOf, pngOf, sheetsOf } from './sheets';

/** A picture of a page: saved, copied, printed, cropped, put onto a page of a class. */
export function PicturePage({ pictured }: { pictured: Pictured }) {
  const [steps, setSteps] = useState<readonly (readonly Sheet[])[]>([]);
  const [problem, setProblem] = useState<string>();
  const [said, setSaid] = useState<string>();
  const [isCropping, setCropping] = useState(false);
  useEffect(() => {
    sheetsOf(pictured).then(
      (sheets) => setSteps([sheets]),
      () => setProblem(say('pictureGone')),
    );
  }, [pictured]);
  const sheets = steps.at(-1) ?? [];
  const name =
    pictured.title
      .replace(/[^\p{L}\p{N} ._-]+/gu, ' ')
      .trim()
      .slice(0, 80) || 'page';
  const act = (what: () => Promise<string | undefined>) => () => {
    setProblem(undefined);
    what().then(setSaid, (error: Error) => setProblem(error.message));
  };
  const crop = (n: number, part: Rect) => {
    setCropping(false);
    setSteps([...steps, [cropped(sheets[n]!, part)]]);
  };
  return (
    <main className="flex min-h-full flex-col gap-4 p-4">
      <div className="flex flex-wrap gap-2 print:hidden" role="toolbar" aria-label={say('picture')}>
        <Button
          look="main"
          icon={<Image aria-hidden size={20} />}
          onClick={act(() => savePngs(sheets, name))}
        >
          {say('savePng')}
        </Button>
        <Button
          icon={<FileText aria-hidden size={20} />}
          onClick={act(() => savePdf(sheets, name, pictured.title))}
        >
          {say('savePdf')}
        </Button>
        <Button icon={<Copy aria-hidden size={20} />} onClick={act(() => copy(sheets))}>
          {say('copy')}
        </Button>
        <Button icon={<Printer aria-hidden size={20} />} onClick={() => window.print()}>
          {say('print')}
        </Button>
        <Button
          icon={<Crop aria-hidden size={20} />}
          aria-pressed={isCropping}
          onClick={() => setCropping(!isCropping)}
        >
          {isCropping ? say('cropHow') : say('crop')}
        </Button>
        <Button
          icon={<Undo2 aria-hidden size={20} />}
          disabled={steps.length < 2}
          onClick={() => setSteps(steps.slice(0, -1))}
        >
          {say('uncrop')}
        </Button>
        <Button icon={<School aria-hidden size={20} />} onClick={act(() => toClass(sheets, pictured.title))}>
          {say('ontoPage')}
        </Button>
      </div>
      <Problem>{problem}</Problem>
      {said !== undefined && <p role="status">{said}</p>}
      {sheets.map((sheet, n) => (
        <SheetView key={n} sheet={sheet} isCropping={isCropping} onCrop={(part) => crop(n, part)} />
      ))}
    </main>
  );
}

interface SheetViewProps {
  sheet: Sheet;
  isCropping: boolean;
  onCrop(part: Rect): void;
}

/** Least share of a side that is meant as a part. */
const LEAST = 0.01;

function SheetView({ sheet, isCropping, onCrop }: SheetViewProps) {
  const host = useRef<HTMLDivElement>(null);
  const [part, setPart] = useState<Rect>();
  const shown = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const canvas = shown.current!;
    const { width, height } = sheet.canvas;
    Object.assign(canvas, { width, height });
    canvas.getContext('2d')!.drawImage(sheet.canvas, 0, 0);
  }, [sheet]);
  const at = (event: { clientX: number; clientY: number }) => {
    const { left, top, width, height } = host.current!.getBoundingClientRect();
    const share = (value: number) => Math.min(1, Math.max(0, value));
    return { x: share((event.clientX - left) / width), y: share((event.clientY - top) / height) };
  };
  const from = (start: { x: number; y: number }, event: { clientX: number; clientY: number }) => {
    const end = at(event);
    return rectFromCorners(start.x, start.y, end.x, end.y);
  };
  const drag = useDrag({
    begin: at,
    move: (event, start) => setPart(from(start, event)),
    end: (event, start, dropped) => {
      const drawn = from(start, event);
      setPart(undefined);
      if (dropped && drawn.width > LEAST && drawn.height > LEAST) onCrop(drawn);
    },
  });
  const percent = (value: number) => `${value * 100}%`;
  return (
    <div
      ref={host}
      data-testid="sheet"
      className="relative max-w-full self-start border-2 border-paper-line print:border-0"
      style={{
        width: sheet.width,
        touchAction: isCropping ? 'none' : undefined,
        cursor: isCropping ? 'crosshair' : undefined,
      }}
      {...(isCropping && drag)}
    >
      <canvas ref={shown} className="block h-auto w-full" />
      {part && (
        <div
          className="absolute border-2 border-dashed border-chalk-deep bg-chalk/20"
          style={{
            left: percent(part.x),
            top: percent(part.y),
            width: percent(part.width),
            height: percent(part.height),
          }}
        />
      )}
    </div>
  );
}

async function savePngs(sheets: readonly Sheet[], name: string): Promise<undefined> {
  for (const [n, sheet] of sheets.entries())
    saveFile(sheets.length > 1 ? `${name} ${n + 1}.png` : `${name}.png`, await pngOf(sheet));
}

async function savePdf(sheets: readonly Sheet[], name: string, title: string): Promise<undefined> {
  const letters = await (await fetch(chrome.runtime.getURL('fonts/andika'))).arrayBuffer();
  saveFile(`${name}.pdf`, await pdfOf(sheets, title, letters));
}

async function copy([first]: readonly Sheet[]): Promise<string | undefined> {
  if (first) await copyPng(pngOf(first));
  return say('copied');
}

async function toClass(sheets: readonly Sheet[], title: string): Promise<string> {
  const place = await pairedBefore();
  if (!place) throw new Error(say('pairFirst'));
  const link = new ClassLink(place);
  try {
    await link.bringPictures(await Promise.all(sheets.map(pngOf)), title);
    await link.sent();
    return say('broughtIn');
  } finally {
    link.close();
  }
}
