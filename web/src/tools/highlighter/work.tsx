import { Highlighter } from 'lucide-react';
import { lazy } from 'react';
import { guidedInk } from '../pen/guidedInk';
import { InkGesture } from '../pen/inkGesture';
import type { ToolWork } from '../toolWork';
import { WordsGesture } from './wordsGesture';

export const highlighter: ToolWork = {
  icon: <Highlighter aria-hidden />,
  begin(at, { desk, scale, words, penAt, onChange }) {
    const { highlighter: style, markWords } = desk.penCase.get();
    if (markWords && words) return new WordsGesture(desk, at, (from, to) => words.between(from, to));
    const ink = penAt(at, style);
    return guidedInk(desk, ink, at, scale) ?? new InkGesture(desk, ink, false, at, onChange);
  },
  Sheet: lazy(() => import('./Sheet')),
};
