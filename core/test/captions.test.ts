import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Take } from '../src/api/explanations.js';
import type { Cue } from '../src/explain/index.js';
import { captionOf, cuesOf, playedParts, readCaptions, writeSrt, writeWebVtt } from '../src/explain/index.js';

describe('files of captions', () => {
  // The examples of W3C WebVTT (Candidate Recommendation 2019), §1.1 and §1.2, from memory.
  it('in WebVTT are read as its specification has them', () => {
    const file = [
      'WEBVTT - some header',
      '',
      'STYLE',
      '::cue { color: papayawhip }',
      '',
      'NOTE',
      'This is a comment with 00:01.000 --> 00:02.000',
      '',
      '00:01.000 --> 00:04.000 position:10%,line-left align:left size:35%',
      'Never drink liquid nitrogen.',
      '',
      'second',
      '00:05.000 --> 00:09.000',
      '<v Tove>— It will perforate your <i>stomach</i>.',
      '— You &lt;could&gt; die &amp; rest.',
      '',
      '100:00:00.000 --> 100:00:01.000',
      'Late',
      '',
      '00:09.000 --> 00:08.000',
      'Backwards',
    ].join('\r\n');
    expect(readCaptions(file)).toEqual([
      { from: 1000, to: 4000, text: 'Never drink liquid nitrogen.' },
      { from: 5000, to: 9000, text: '— It will perforate your stomach.\n— You <could> die & rest.' },
      { from: 360_000_000, to: 360_001_000, text: 'Late' },
    ]);
  });

  it('in SRT are read too, and what is neither is said to be', () => {
    const file =
      '\ufeff1\n00:00:01,500 --> 00:00:02,750\nLoads\n\n2\n00:00:03,000 --> 00:00:04,000\nArches\ncarry\n';
    expect(readCaptions(file)).toEqual([
      { from: 1500, to: 2750, text: 'Loads' },
      { from: 3000, to: 4000, text: 'Arches\ncarry' },
    ]);
    expect(readCaptions('Dear class,\n\nplease read this.')).toBeUndefined();
    expect(readCaptions('')).toBeUndefined();
    expect(readCaptions('WEBVTT')).toEqual([]);
  });

  it('are written as they are read', () => {
    const cue = { from: 3_723_004, to: 3_724_000, text: 'a < b & c --> d\n\nend' };
    expect(writeWebVtt([cue])).toBe(
      'WEBVTT\n\n01:02:03.004 --> 01:02:04.000\na &lt; b &amp; c --&gt; d\nend\n',
    );
    expect(writeSrt([cue])).toBe('1\n01:02:03,004 --> 01:02:04,000\na < b & c → d\nend\n');
  });

  const word = fc
    .stringMatching(/^[\wäß&.,’ -]{1,20}$/)
    .filter((text) => text.trim() === text && text !== '');
  const anyCues = fc
    .array(
      fc.tuple(
        fc.nat(5000),
        fc.integer({ min: 1, max: 5000 }),
        fc.array(word, { minLength: 1, maxLength: 2 }),
      ),
    )
    .map((list) => {
      let at = 0;
      return list.map(([gap, length, lines]): Cue => {
        const from = at + gap + 1;
        at = from + length;
        return { from, to: at, text: lines.join('\n') };
      });
    });
  it('lose nothing on the way out and in', () => {
    fc.assert(
      fc.property(anyCues, (cues) => {
        expect(readCaptions(writeWebVtt(cues))).toEqual(cues);
        expect(readCaptions(writeSrt(cues)) ?? []).toEqual(cues);
      }),
    );
  });
});

describe('captions of an explanation', () => {
  const take = (id: string, length: number): Take => ({
    id,
    startedAt: 0,
    length,
    voice: null,
    video: null,
    face: null,
  });
  const takes = [take('a', 10_000), take('b', 5000)];
  const caption = (from: number, length: number, text = 'Loads') => ({ take: 'a', from, length, text });

  it('go with what plays: cut out, cut off, or later', () => {
    const parts = playedParts({
      takes,
      parts: [
        { take: 'b', from: 0, length: 1000 },
        { take: 'a', from: 2000, length: 3000 },
      ],
    });
    const captions = [
      caption(0, 1500, 'gone'),
      caption(1500, 1000, 'cut off'),
      caption(3000, 500),
      caption(4800, 900),
    ];
    expect(cuesOf(captions, parts)).toEqual([
      { from: 1000, to: 1500, text: 'cut off', index: 1 },
      { from: 2000, to: 2500, text: 'Loads', index: 2 },
      { from: 3800, to: 4000, text: 'Loads', index: 3 },
    ]);
  });

  it('are kept by the take that plays', () => {
    const parts = playedParts({ takes, parts: null });
    expect(captionOf({ from: 11_000, to: 12_500, text: 'Arches' }, parts)).toEqual({
      take: 'b',
      from: 1000,
      length: 1500,
      text: 'Arches',
    });
    expect(captionOf({ from: 10, to: 10, text: 'x' }, parts)).toBeUndefined();
    expect(captionOf({ from: 10, to: 20, text: 'x' }, [])).toBeUndefined();
  });
});
