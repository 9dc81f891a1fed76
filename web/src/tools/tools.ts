import { enlarge } from './enlarge/facts';
import { eraser } from './eraser/facts';
import { fill } from './fill/facts';
import { highlighter } from './highlighter/facts';
import { line } from './line/facts';
import { note } from './note/facts';
import { outline } from './outline/facts';
import { patch } from './patch/facts';
import { pen } from './pen/facts';
import { pointer } from './pointer/facts';
import { select } from './select/facts';
import { shape } from './shape/facts';
import { stamp } from './stamp/facts';
import { text } from './text/facts';
import type { Tool, ToolGroup } from './tool';
import { wisp } from './wisp/facts';

/** All tools, in the order in which they are shown; `work.tsx` has what each does. */
export const TOOLS = {
  pen,
  highlighter,
  text,
  eraser,
  shape,
  line,
  stamp,
  note,
  fill,
  select,
  pointer,
  wisp,
  outline,
  enlarge,
  patch,
};

export type ToolId = keyof typeof TOOLS;
export const TOOL_IDS = Object.keys(TOOLS) as ToolId[];

type KeptBy<T> = T extends Tool<infer Kept> ? Kept : never;
type All<U> = (U extends unknown ? (value: U) => void : never) extends (value: infer I) => void ? I : never;

/** What all tools keep together. */
export type KeptByTools = All<KeptBy<(typeof TOOLS)[ToolId]>>;

/** What all tools keep, as it is at first. */
export const KEPT_AT_FIRST = Object.assign({}, ...TOOL_IDS.map((id) => TOOLS[id].kept)) as KeptByTools;

/** A tool as it can be asked about anything that is kept. */
export function toolOf(id: ToolId): Omit<Tool<KeptByTools>, 'kept'> {
  return TOOLS[id];
}

export function toolsIn(group: ToolGroup): ToolId[] {
  return TOOL_IDS.filter((id) => TOOLS[id].group === group);
}
