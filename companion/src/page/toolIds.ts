/** The tools that make sense on a page of the web, in the order in which they are shown. */
export const TAB_TOOL_IDS = [
  'pen',
  'highlighter',
  'text',
  'eraser',
  'shape',
  'line',
  'stamp',
  'note',
  'fill',
  'select',
  'pointer',
  'wisp',
  'patch',
] as const;

export type TabToolId = (typeof TAB_TOOL_IDS)[number];

/** Whether a tool is one of those here. */
export const isTabTool = (id: string): id is TabToolId => (TAB_TOOL_IDS as readonly string[]).includes(id);
