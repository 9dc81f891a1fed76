import { Highlighter } from 'lucide-react';
import { lazy } from 'react';
import { InkGesture } from '../pen/inkGesture';
import type { ToolWork } from '../toolWork';
import { WordsGesture } from './wordsGesture';

export const highlighter: ToolWork = {
  icon: <Highlighter aria-hidden />,
  begin(at, { desk, words, penAt, onChange }) {
    const { highlighter: style, markWords } = desk.penCase.get();
    if (markWords && words) return new WordsGesture(desk, at, (from, to) => words.between(from, to));
    return new InkGesture(desk, penAt(at, style), false, at, onChange);
  },
  Sheet: lazy(() => import('./Sheet')),
};
