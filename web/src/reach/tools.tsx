import {
  Eraser,
  Highlighter,
  Lasso,
  PaintBucket,
  PenLine,
  Shapes,
  Spline,
  Stamp,
  StickyNote,
  Type,
} from 'lucide-react';
import type { ReactNode } from 'react';
import type { ToolId } from '../workspace/penCase';

export interface ToolEntry {
  id: ToolId;
  name: string;
  icon: ReactNode;
}

/** The tools, grouped by what one means to do. */
export const TOOL_GROUPS: { name: string; tools: ToolEntry[] }[] = [
  {
    name: 'Write',
    tools: [
      { id: 'pen', name: 'Pen', icon: <PenLine aria-hidden /> },
      { id: 'highlighter', name: 'Highlighter', icon: <Highlighter aria-hidden /> },
      { id: 'text', name: 'Text', icon: <Type aria-hidden /> },
      { id: 'eraser', name: 'Eraser', icon: <Eraser aria-hidden /> },
    ],
  },
  {
    name: 'Place',
    tools: [
      { id: 'shape', name: 'Shape', icon: <Shapes aria-hidden /> },
      { id: 'line', name: 'Line', icon: <Spline aria-hidden /> },
      { id: 'stamp', name: 'Stamp', icon: <Stamp aria-hidden /> },
      { id: 'note', name: 'Note', icon: <StickyNote aria-hidden /> },
      { id: 'fill', name: 'Pour', icon: <PaintBucket aria-hidden /> },
    ],
  },
];

export const SELECT_TOOL: ToolEntry = { id: 'select', name: 'Select', icon: <Lasso aria-hidden /> };
export const ALL_TOOLS = [...TOOL_GROUPS.flatMap(({ tools }) => tools), SELECT_TOOL];
