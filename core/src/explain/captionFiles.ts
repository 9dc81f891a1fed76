/** What is said from one time to another, milliseconds of a playback. */
export interface Cue {
  readonly from: number;
  readonly to: number;
  /** May have several lines. */
  readonly text: string;
}

/** Minutes, seconds and thousandths, with hours where there are some; WebVTT writes a point, SRT a comma. */
const TIME = /^(?:(\d{1,4}):)?([0-5]?\d):([0-5]\d)[.,](\d{3})$/;
const ESCAPED: Readonly<Record<string, string>> = {
  amp: '&',
  lt: '<',
  gt: '>',
  nbsp: '\u00a0',
  lrm: '\u200e',
  rlm: '\u200f',
};

/**
 * The cues of a WebVTT (W3C, WebVTT: The Web Video Text Tracks Format) or SRT file, in the order of their times. Their settings,
 * styles, notes and spans are left out. Gives nothing where it is neither.
 */
export function readCaptions(file: string): Cue[] | undefined {
  const lines = file.replace(/^\ufeff/, '').split(/\r\n|\r|\n/);
  const isVtt = /^WEBVTT(?:[ \t]|$)/.test(lines[0] ?? '');
  const cues = blocksOf(lines).flatMap((block): Cue[] => {
    const at = block.findIndex((line) => line.includes('-->'));
    const times = at < 0 ? undefined : timesOf(block[at]!);
    if (!times || (isVtt && /^(?:NOTE|STYLE|REGION)\b/.test(block[0]!))) return [];
    const text = block
      .slice(at + 1)
      .map(plain)
      .join('\n')
      .trim();
    return text === '' ? [] : [{ ...times, text }];
  });
  return isVtt || cues.length > 0 ? cues.sort((a, b) => a.from - b.from) : undefined;
}

/** A WebVTT file; W3C, as above, §4. */
export function writeWebVtt(cues: readonly Cue[]): string {
  const blocks = cues.map(({ from, to, text }) => {
    const escaped = text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;');
    return `${written(from, '.')} --> ${written(to, '.')}\n${withoutGaps(escaped)}`;
  });
  return `${['WEBVTT', ...blocks].join('\n\n')}\n`;
}

/** A SubRip file as most programs read it; common practice, no standard. */
export function writeSrt(cues: readonly Cue[]): string {
  return cues
    .map(
      ({ from, to, text }, i) =>
        `${i + 1}\n${written(from, ',')} --> ${written(to, ',')}\n${withoutGaps(text)}\n`,
    )
    .join('\n');
}

/** Lines between empty ones. */
function blocksOf(lines: readonly string[]): string[][] {
  const blocks: string[][] = [[]];
  for (const line of lines) {
    if (line.trim() === '') blocks.push([]);
    else blocks.at(-1)!.push(line);
  }
  return blocks.filter(({ length }) => length > 0);
}

function timesOf(line: string): Pick<Cue, 'from' | 'to'> | undefined {
  const [before, after = ''] = line.split('-->');
  const [from, to] = [timeOf(before!.trim()), timeOf(after.trim().split(/\s/)[0]!)];
  return from !== undefined && to !== undefined && to > from ? { from, to } : undefined;
}

function timeOf(written: string): number | undefined {
  const found = TIME.exec(written);
  if (!found) return undefined;
  const [, hours = '0', minutes, seconds, thousandths] = found;
  return ((Number(hours) * 60 + Number(minutes)) * 60 + Number(seconds)) * 1000 + Number(thousandths);
}

function written(time: number, point: '.' | ','): string {
  const whole = Math.max(0, Math.round(time));
  const part = (by: number, most: number) => Math.floor(whole / by) % most;
  const two = (value: number) => String(value).padStart(2, '0');
  const hours = two(Math.floor(whole / 3_600_000));
  return `${hours}:${two(part(60_000, 60))}:${two(part(1000, 60))}${point}${String(whole % 1000).padStart(3, '0')}`;
}

/** What is read of a line, without spans such as of a voice or of italics. */
function plain(line: string): string {
  return line
    .replace(/<[^>]*>/g, '')
    .replace(/&(amp|lt|gt|nbsp|lrm|rlm);/g, (_, name: string) => ESCAPED[name]!);
}

/** An empty line would end the cue, and an arrow would begin another. */
function withoutGaps(text: string): string {
  return text
    .replace(/-->/g, '→')
    .split(/\r\n|\r|\n/)
    .filter((line) => line.trim() !== '')
    .join('\n');
}
