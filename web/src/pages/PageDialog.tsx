import type { Format, NumberLine, Page, Ruling, Sheet } from '@doodla/core';
import { FORMATS, isBlankSheet, paintRuling, RULINGS, toSvgPath } from '@doodla/core';
import { USUAL_LINE } from '@doodla/core/rulings';
import { useRef, useState } from 'react';
import { Button } from '../ui/Button';
import { classes } from '../ui/classes';
import { Modal } from '../ui/Modal';
import type { PageDesk } from '../room/pageDesk';
import { t } from '../words';

const FORMAT_NAMES: Record<Format, string> = {
  wide: t('pages.wideDisplay169'),
  classic: t('pages.display43'),
  a4: 'A4',
  letter: t('pages.letter'),
};
const RULING_NAMES: Record<Ruling, string> = {
  plain: t('common.plain'),
  squared: t('pages.squared'),
  dotted: t('common.dotted'),
  lined: t('pages.lined'),
  handwriting: t('pages.handwritingRows'),
  music: t('pages.musicStaves'),
  isometric: t('pages.isometric'),
  axes: t('pages.axes'),
  polar: t('pages.polar'),
  numberLine: t('pages.numberLine'),
};
/** Usual distance of lines, millimetres. */
const USUAL_SPACING: Record<Ruling, number> = {
  plain: 10,
  squared: 10,
  dotted: 10,
  lined: 10,
  handwriting: 6,
  music: 3,
  isometric: 10,
  axes: 12,
  polar: 10,
  numberLine: 40,
};
const PAPERS = [
  { hex: '#ffffff', name: 'white' },
  { hex: '#faf5e8', name: 'cream' },
  { hex: '#e8f1fa', name: 'blue' },
  { hex: '#fdf3c8', name: 'yellow' },
  { hex: '#12352a', name: 'board' },
  { hex: '#1c241f', name: 'dark' },
] as const;

const LAST_SHEET = 'doodla.newPage';

interface PageDialogProps {
  title: string;
  action: string;
  /** The page whose paper is changed; a new one is what was chosen last, at first wide and plain. */
  page?: Page | undefined;
  /** Where pictures can be stored; left out where there is no lesson yet. */
  desk?: PageDesk;
  onChoose(sheet: Sheet): void;
  onClose(): void;
}

/** Format, ruling and colour of a blank page, or a picture as its ground. */
export function PageDialog({ title, action, page, desk, onChoose, onClose }: PageDialogProps) {
  const [start] = useState(() => page ?? lastSheet());
  const blank = start?.surface.kind === 'blank' ? start.surface : undefined;
  const [size, setSize] = useState({
    width: start?.width ?? FORMATS.wide.width,
    height: start?.height ?? FORMATS.wide.height,
  });
  const [ruling, setRuling] = useState<Ruling>(blank?.ruling ?? 'plain');
  const [spacing, setSpacing] = useState(blank?.spacing ?? USUAL_SPACING.plain);
  const [colour, setColour] = useState(blank?.colour ?? PAPERS[0].hex);
  const [boundless, setBoundless] = useState(blank?.boundless ?? false);
  const [line, setLine] = useState<NumberLine>(blank?.line ?? USUAL_LINE);
  const upright = size.height > size.width;
  const chooseFormat = (format: Format, stand: boolean) => {
    const { width, height } = FORMATS[format];
    setBoundless(false);
    setSize(stand ? { width: height, height: width } : { width, height });
  };
  const isFormat = (format: Format) =>
    !boundless && Math.abs(Math.max(size.width, size.height) - FORMATS[format].width) < 1;
  const sheet: Sheet = {
    ...size,
    surface: {
      kind: 'blank',
      colour,
      ruling,
      spacing,
      ...(boundless && { boundless }),
      ...(ruling === 'numberLine' && { line }),
    },
  };
  const isPossible = isBlankSheet(sheet);
  return (
    <Modal title={title} open onOpenChange={onClose}>
      <div className="flex flex-col gap-4">
        <Row label={t('pages.format')}>
          {(Object.keys(FORMATS) as Format[]).map((format) => (
            <Pick key={format} chosen={isFormat(format)} onClick={() => chooseFormat(format, upright)}>
              {FORMAT_NAMES[format]}
            </Pick>
          ))}
          <Pick chosen={boundless} onClick={() => setBoundless(true)}>
            {t('pages.boundless')}
          </Pick>
          {!boundless && (
            <Pick chosen={upright} onClick={() => setSize({ width: size.height, height: size.width })}>
              {upright ? t('pages.portrait') : t('pages.landscape')}
            </Pick>
          )}
        </Row>
        <Row label={t('pages.ruling')}>
          {RULINGS.map((value) => (
            <Pick
              key={value}
              chosen={value === ruling}
              onClick={() => {
                setRuling(value);
                setSpacing(USUAL_SPACING[value]);
              }}
            >
              <RulingIcon ruling={value} />
              {RULING_NAMES[value]}
            </Pick>
          ))}
        </Row>
        {ruling !== 'plain' && (
          <label className="flex items-center gap-3">
            <span className="font-bold">{t('pages.spaceBetweenLines')}</span>
            <input
              type="number"
              min={2}
              max={100}
              step={0.5}
              value={spacing}
              onChange={(event) => setSpacing(Math.min(100, Math.max(2, Number(event.target.value))))}
              className="min-h-11 w-24 rounded-xl border-2 border-paper-line bg-white px-3"
            />
            {t('pages.mm')}
          </label>
        )}
        {ruling === 'numberLine' && <LineEnds line={line} onChange={setLine} />}
        {!isPossible && (
          <p role="alert" className="font-bold text-alarm">
            {t('pages.lineWrong')}
          </p>
        )}
        <Row label={t('pages.colourOfThePage')}>
          {PAPERS.map(({ hex, name }) => (
            <button
              key={hex}
              type="button"
              aria-pressed={hex === colour}
              aria-label={t('pages.pageColour', { paper: t(`papers.${name}`) })}
              onClick={() => setColour(hex)}
              className={classes(
                'size-11 rounded-xl border-2',
                hex === colour ? 'border-board ring-3 ring-chalk' : 'border-paper-line',
              )}
              style={{ background: hex }}
            />
          ))}
          <label className="flex min-h-11 items-center gap-2 rounded-xl border-2 border-paper-line bg-white px-3">
            <input
              type="color"
              aria-label={t('pages.anotherColourOfThePage')}
              className="size-7 cursor-pointer"
              value={colour}
              onChange={(event) => setColour(event.target.value)}
            />
            {t('pages.another')}
          </label>
        </Row>
        <div className="flex flex-wrap gap-3">
          <Button
            look="main"
            disabled={!isPossible}
            onClick={() => {
              if (!page) rememberSheet(sheet);
              onChoose(sheet);
            }}
          >
            {action}
          </Button>
          {desk && <OwnPicture desk={desk} onChoose={onChoose} />}
        </div>
      </div>
    </Modal>
  );
}

const LINE_FIELDS = { from: 'pages.lineFrom', to: 'pages.lineTo', step: 'pages.lineStep' } as const;

/** Where a number line begins and ends, and in which steps it goes. */
function LineEnds({ line, onChange }: { line: NumberLine; onChange(line: NumberLine): void }) {
  return (
    <div className="flex flex-wrap gap-4">
      {(['from', 'to', 'step'] as const).map((field) => (
        <label key={field} className="flex items-center gap-3">
          <span className="font-bold">{t(LINE_FIELDS[field])}</span>
          <input
            type="number"
            step="any"
            defaultValue={line[field]}
            onChange={(event) => onChange({ ...line, [field]: event.target.valueAsNumber })}
            className="min-h-11 w-24 rounded-xl border-2 border-paper-line bg-white px-3"
          />
        </label>
      ))}
    </div>
  );
}

/** What was chosen last for a new page on this device. */
function lastSheet(): Sheet | undefined {
  try {
    const sheet = JSON.parse(localStorage.getItem(LAST_SHEET) ?? 'null') as unknown;
    return isBlankSheet(sheet) ? sheet : undefined;
  } catch {
    // What cannot be read is chosen anew.
    return undefined;
  }
}

function rememberSheet(sheet: Sheet): void {
  localStorage.setItem(LAST_SHEET, JSON.stringify(sheet));
}

/** A picture of one's own instead: the page takes its shape. */
function OwnPicture({ desk, onChoose }: Required<Pick<PageDialogProps, 'desk' | 'onChoose'>>) {
  const input = useRef<HTMLInputElement>(null);
  const [problem, setProblem] = useState<string>();
  const take = async (file: File | undefined) => {
    if (!file) return;
    try {
      const { material, width, height } = await desk.pictureActions.store(file);
      const scale = Math.sqrt((FORMATS.wide.width * FORMATS.wide.height) / (width * height));
      onChoose({ width: width * scale, height: height * scale, surface: { kind: 'picture', material } });
    } catch (error) {
      setProblem((error as Error).message);
    }
  };
  return (
    <>
      <input
        ref={input}
        type="file"
        accept="image/*"
        aria-label={t('pages.pictureForThePage')}
        className="sr-only"
        tabIndex={-1}
        onChange={(event) => void take(event.target.files?.[0])}
      />
      <Button onClick={() => input.current!.click()}>{t('pages.useAPictureOfYour')}</Button>
      {problem && (
        <p role="alert" className="w-full font-bold text-alarm">
          {problem}
        </p>
      )}
    </>
  );
}

function Row({ label, children }: { label: string; children: React.ReactNode }) {
  return (
    <fieldset>
      <legend className="mb-1 font-bold">{label}</legend>
      <div className="flex flex-wrap gap-2">{children}</div>
    </fieldset>
  );
}

function Pick({
  chosen,
  onClick,
  children,
}: {
  chosen: boolean;
  onClick(): void;
  children: React.ReactNode;
}) {
  return (
    <button
      type="button"
      aria-pressed={chosen}
      onClick={onClick}
      className={classes(
        'flex min-h-11 items-center gap-2 rounded-xl border-2 px-3',
        chosen ? 'border-board bg-board text-paper' : 'border-paper-line bg-white hover:bg-paper-dim',
      )}
    >
      {children}
    </button>
  );
}

/** A corner of a page with the ruling. */
function RulingIcon({ ruling }: { ruling: Ruling }) {
  const rows = ruling === 'music' || ruling === 'handwriting';
  const size = rows || ruling === 'numberLine' ? 230 : 130;
  const items = paintRuling(
    { width: size, height: size },
    {
      kind: 'blank',
      colour: '#ffffff',
      ruling,
      spacing: rows ? 4 : 8,
    },
  );
  return (
    <svg viewBox={`0 0 ${size} ${size}`} className="size-7 rounded bg-white" aria-hidden>
      {items.map((item, i) =>
        item.kind === 'line' ? (
          <path
            key={i}
            d={toSvgPath(item.path)}
            stroke={item.colour}
            strokeWidth={rows ? 7 : 4}
            fill="none"
          />
        ) : item.kind === 'fill' ? (
          <path key={i} d={toSvgPath(item.path)} fill={item.colour} stroke={item.colour} strokeWidth={4} />
        ) : null,
      )}
    </svg>
  );
}
