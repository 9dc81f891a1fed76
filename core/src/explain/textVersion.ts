import { element, xmlText } from '../formats/xml.js';
import type { Cue } from './captionFiles.js';
import type { FilmChapter } from './filmChapters.js';

/** A picture of an explanation with the words that were said until then. */
export interface TextStep {
  /** When it is; milliseconds of the playback. */
  readonly at: number;
  /** What is to be done then; may be empty. */
  readonly task: string;
  readonly said: readonly string[];
}

export interface TextChapter extends FilmChapter {
  readonly steps: readonly TextStep[];
}

interface Explained {
  readonly chapters: readonly FilmChapter[];
  readonly stops: readonly { time: number; text: string }[];
  readonly cues: readonly Cue[];
  /** How long it plays, milliseconds. */
  readonly length: number;
}

/**
 * An explanation for those who read it: a step at each stop and at the end of each chapter. Each caption belongs to the first
 * step that comes after it has begun.
 */
export function textChapters({ chapters, stops, cues, length }: Explained): TextChapter[] {
  return chapters.map((chapter, i) => {
    const next = chapters[i + 1]?.at;
    const end = next === undefined ? length : Math.max(chapter.at, next - 1);
    const places = stops
      .filter(({ time }) => time >= chapter.at && (next === undefined ? time <= length : time < next))
      .map(({ time, text }) => ({ at: time, task: text }));
    const steps = [...places, { at: end, task: '' }].sort((a, b) => a.at - b.at);
    const isLast = next === undefined;
    return {
      ...chapter,
      steps: steps.map((step, j) => {
        const from = j === 0 ? (i === 0 ? -Infinity : chapter.at) : steps[j - 1]!.at;
        const to = j < steps.length - 1 ? step.at : isLast ? Infinity : next;
        const said = cues.filter((cue) => cue.from >= from && cue.from < to).map(({ text }) => text);
        return { ...step, said };
      }),
    };
  });
}

interface TextWords {
  readonly title: string;
  /** BCP 47. */
  readonly language: string;
  /** What a picture is called for those who do not see it. */
  alt(chapter: TextChapter, step: TextStep): string;
  /** A time as it is written. */
  time(at: number): string;
  readonly contents: string;
}

const LOOK = `
body{font:1.1rem/1.6 Andika,Verdana,sans-serif;color:#16241f;background:#fbf5e9;margin:0 auto;max-width:60rem;padding:1.5rem}
img{max-width:100%;height:auto;border:1px solid #8a7a62;background:#fff}
figure{margin:1.5rem 0}figcaption{font-weight:bold}section{break-before:page}
a{color:#14506b}
@media print{body{background:#fff}}`;

/**
 * One HTML file that needs no other, with the pictures of all steps in their order as addresses with their data in them
 * (RFC 2397). Nothing in it runs.
 */
export function textVersion(
  chapters: readonly TextChapter[],
  pictures: readonly string[],
  { title, language, alt, time, contents }: TextWords,
): string {
  let picture = 0;
  const figure = (chapter: TextChapter, step: TextStep) => {
    const image = element('img', { src: pictures[picture++], alt: alt(chapter, step) });
    return element('figure', {}, image + (step.task && element('figcaption', {}, lines(step.task))));
  };
  const sections = chapters.map((chapter, i) => {
    const steps = chapter.steps.map(
      (step) => step.said.map((text) => element('p', {}, lines(text))).join('') + figure(chapter, step),
    );
    const head = element('h2', {}, `${xmlText(chapter.name)} <small>${time(chapter.at)}</small>`);
    return element('section', { id: `c${i}` }, [head, ...steps].join('\n'));
  });
  const links = chapters.map(({ name }, i) =>
    element('li', {}, element('a', { href: `#c${i}` }, xmlText(name))),
  );
  const nav =
    chapters.length > 1 ? element('nav', { 'aria-label': contents }, element('ol', {}, links.join(''))) : '';
  return `<!DOCTYPE html>
<html lang="${xmlText(language)}">
<head>
<meta charset="utf-8"/>
<meta http-equiv="Content-Security-Policy" content="default-src 'none'; img-src data:; style-src 'unsafe-inline'"/>
<meta name="viewport" content="width=device-width, initial-scale=1"/>
<title>${xmlText(title)}</title>
<style>${LOOK}</style>
</head>
<body>
<main>
<h1>${xmlText(title)}</h1>
${nav}
${sections.join('\n')}
</main>
</body>
</html>
`;
}

const lines = (text: string) => xmlText(text).replaceAll('\n', '<br/>');
