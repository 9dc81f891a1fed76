import { FIGURE_IDS, FIGURES, SUBJECTS } from '@doodla/core/figures';
import { afterEach, describe, expect, it } from 'vitest';
import { speakWords } from '../src/words';
import { de } from '../src/words/de';
import { en } from '../src/words/en';
import { sayField, sayFigure, sayOption, saySubject } from '../src/words/figures';

afterEach(() => speakWords('en', en));

describe.each([
  ['en', en],
  ['de', de],
] as const)('figures in %s', (tag, words) => {
  it('are called something, all that can be set of them and what it can be', () => {
    speakWords(tag, words);
    const names = words.figures as Record<string, string>;
    for (const subject of SUBJECTS) expect(names[`s_${subject}`], subject).toBe(saySubject(subject));
    for (const id of FIGURE_IDS) {
      expect(names[`a_${id}`], id).toBe(sayFigure(id));
      for (const [key, field] of Object.entries(FIGURES[id].fields)) {
        expect(names[`f_${key}`], key).toBe(sayField(key));
        if (field.is !== 'choice') continue;
        // Numbers and degrees need no words.
        for (const option of field.of.filter((one) => !/^\d+$|°/.test(one)))
          expect(names[`o_${option}`], option).toBe(sayOption(option));
      }
    }
    expect(sayOption('250')).toBe('250');
  });
});
