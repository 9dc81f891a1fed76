import type { InkStyle, QuoteMark } from '@doodla/core';
import type { Tool } from '../tool';
import { t } from '../../words';

export interface HighlighterKept {
  highlighter: InkStyle;
  /** Whether it draws straight along the line of writing. */
  straightHighlighter: boolean;
  /** Whether it marks whole words where there is text, and how they look. */
  markWords: boolean;
  wordsLook: QuoteMark['look'];
}

/** How strong highlighters are that many use at once. */
export const SHARED_OPACITY = 0.35;

export const highlighter: Tool<HighlighterKept> = {
  name: t('tools.highlighter'),
  key: 'H',
  group: 'Write',
  needs: 'writing',
  kept: {
    highlighter: { nature: 'highlighter', colour: '#f0e442', width: 22, opacity: 0.55 },
    straightHighlighter: false,
    markWords: true,
    wordsLook: 'highlight',
  },
  colour: {
    of: (kept) => kept.highlighter.colour,
    with: (kept, colour) => ({ highlighter: { ...kept.highlighter, colour } }),
  },
  inOneColour: (kept, colour) => ({
    highlighter: { ...kept.highlighter, colour, opacity: SHARED_OPACITY },
  }),
};
