import {
  Crosshair,
  Eraser,
  Expand,
  Highlighter,
  Lasso,
  LassoSelect,
  PaintBucket,
  PenLine,
  Shapes,
  Spline,
  SquareDashed,
  Stamp,
  StickyNote,
  Type,
  Wind,
} from 'lucide-react';
import type { ReactNode } from 'react';
import type { ToolId } from '../desk/penCase';

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

/** Tools that are taken from the sheets of the groups Point and Focus. */
export const POINT_TOOLS: ToolEntry[] = [
  { id: 'pointer', name: 'Pointer', icon: <Crosshair aria-hidden /> },
  { id: 'wisp', name: 'Wisp', icon: <Wind aria-hidden /> },
];
export const FOCUS_TOOLS: ToolEntry[] = [
  { id: 'outline', name: 'Free spotlight', icon: <LassoSelect aria-hidden /> },
  { id: 'enlarge', name: 'Enlarge', icon: <Expand aria-hidden /> },
  { id: 'patch', name: 'Patch', icon: <SquareDashed aria-hidden /> },
];

export const ALL_TOOLS = [
  ...TOOL_GROUPS.flatMap(({ tools }) => tools),
  SELECT_TOOL,
  ...POINT_TOOLS,
  ...FOCUS_TOOLS,
];
