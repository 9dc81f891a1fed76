import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { textChapters, textVersion } from '../src/explain/index.js';
import { elementsNamed, parseXml } from '../src/formats/parseXml.js';

const LENGTH = 10_000;
const CHAPTERS = [
  { at: 0, name: 'The beam' },
  { at: 4000, name: 'The <arch> & its "load"' },
];
const cue = (from: number, text: string) => ({ from, to: from + 500, text });

describe('an explanation to be read', () => {
  it('has a picture at each stop and at the end of each chapter, with what was said until then', () => {
    const stops = [{ time: 2000, text: 'Draw it' }];
    const cues = [cue(100, 'One.'), cue(2100, 'Two.'), cue(3999, 'Three.'), cue(4000, 'Four.')];
    expect(textChapters({ chapters: CHAPTERS, stops, cues, length: LENGTH })).toEqual([
      {
        ...CHAPTERS[0],
        steps: [
          { at: 2000, task: 'Draw it', said: ['One.'] },
          { at: 3999, task: '', said: ['Two.', 'Three.'] },
        ],
      },
      { ...CHAPTERS[1], steps: [{ at: LENGTH, task: '', said: ['Four.'] }] },
    ]);
  });

  it('keeps what is to be done at a stop where a chapter ends, and where all ends', () => {
    const stops = [
      { time: 3999.5, text: 'Turn' },
      { time: LENGTH, text: 'Think' },
    ];
    const read = textChapters({ chapters: CHAPTERS, stops, cues: [], length: LENGTH });
    expect(read.flatMap(({ steps }) => steps.map(({ task }) => task)).filter(Boolean)).toEqual([
      'Turn',
      'Think',
    ]);
  });

  it('leaves out no caption and says none twice, wherever stops and chapters lie', () => {
    const anyTime = fc.nat(LENGTH);
    fc.assert(
      fc.property(
        fc.uniqueArray(anyTime, { maxLength: 5 }),
        fc.array(anyTime, { maxLength: 5 }),
        fc.array(anyTime, { maxLength: 20 }),
        (turns, stops, said) => {
          const chapters = [0, ...turns.filter((at) => at > 0).sort((a, b) => a - b)].map((at) => ({
            at,
            name: '',
          }));
          const cues = said.sort((a, b) => a - b).map((at, i) => cue(at, String(i)));
          const read = textChapters({
            chapters,
            stops: stops.map((time) => ({ time, text: '' })),
            cues,
            length: LENGTH,
          });
          const words = read.flatMap(({ steps }) => steps.flatMap((step) => step.said));
          expect(words).toEqual(cues.map(({ text }) => text));
        },
      ),
    );
  });

  it('is one file without scripts, in which words stay words', () => {
    const chapters = textChapters({
      chapters: CHAPTERS,
      stops: [],
      cues: [cue(0, 'It <b>bends</b> & holds.\nA second line.')],
      length: LENGTH,
    });
    const html = textVersion(chapters, ['data:image/png;base64,AAAA', 'data:image/png;base64,BBBB'], {
      title: 'Bridges <1>',
      language: 'en',
      alt: ({ name }, { at }) => `${name} at ${at}`,
      time: (at) => `${at / 1000} s`,
      contents: 'Chapters',
    });
    // HTML that is XML too is read by any reader of either.
    const all = parseXml(html.replace('<!DOCTYPE html>', ''));
    expect(elementsNamed('img', all).map(({ attributes }) => attributes.src)).toEqual([
      'data:image/png;base64,AAAA',
      'data:image/png;base64,BBBB',
    ]);
    expect(elementsNamed('section', all)).toHaveLength(2);
    expect(elementsNamed('b', all)).toEqual([]);
    expect(html).toContain('It &lt;b&gt;bends&lt;/b&gt; &amp; holds.<br/>A second line.');
    expect(html).toContain('alt="The &lt;arch&gt; &amp; its &quot;load&quot; at 10000"');
    expect(html).not.toContain('<script');
    expect(html).toContain("default-src 'none'");
  });
});
