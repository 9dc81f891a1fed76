import type { ToolId } from './tools';
import type { ToolWork } from './toolWork';
import { enlarge } from './enlarge/work';
import { eraser } from './eraser/work';
import { fill } from './fill/work';
import { highlighter } from './highlighter/work';
import { line } from './line/work';
import { note } from './note/work';
import { outline } from './outline/work';
import { patch } from './patch/work';
import { pen } from './pen/work';
import { pointer } from './pointer/work';
import { select } from './select/work';
import { shape } from './shape/work';
import { stamp } from './stamp/work';
import { text } from './text/work';
import { wisp } from './wisp/work';

/** What each tool looks like and does; `tools.ts` has what is known of it before. */
export const WORK: Record<ToolId, ToolWork> = {
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
