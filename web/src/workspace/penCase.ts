import type { InkStyle, TextStyle } from '@doodla/core';
import { Store } from '../live/store';

export type ToolId = 'pen' | 'highlighter' | 'text' | 'eraser';

/** What each tool writes with, and which one is in hand. */
export interface PenCaseState {
  tool: ToolId;
  pen: InkStyle;
  highlighter: InkStyle;
  text: TextStyle;
  /** Radius of the eraser's tip, page units. */
  eraserRadius: number;
}

export const WIDTHS = { pen: [2, 4, 8], highlighter: [14, 22, 34] } as const;
export const TEXT_SIZES = [18, 28, 44] as const;
const HIGHLIGHTER_OPACITY = 0.55;

const DEFAULTS: PenCaseState = {
  tool: 'pen',
  pen: { nature: 'pen', colour: '#000000', width: 4, opacity: 1 },
  highlighter: { nature: 'highlighter', colour: '#f0e442', width: 22, opacity: HIGHLIGHTER_OPACITY },
  text: { font: 'andika', size: 28, colour: '#000000' },
  eraserRadius: 8,
};

/** The tools in hand, kept in the browser. A student's ink always has the colour that the class knows them by. */
export class PenCase extends Store<PenCaseState> {
  constructor(
    private readonly key: string,
    readonly fixedColour?: string,
  ) {
    super(load(key, fixedColour));
    this.subscribe(() => localStorage.setItem(this.key, JSON.stringify(this.get())));
  }

  /** Colour of the tool in hand, or undefined for one that has none. */
  get colour(): string | undefined {
    const { tool, pen, highlighter, text } = this.get();
    return { pen: pen.colour, highlighter: highlighter.colour, text: text.colour, eraser: undefined }[tool];
  }

  setColour(colour: string): void {
    const state = this.get();
    if (state.tool === 'eraser') return;
    this.patch({ [state.tool]: { ...state[state.tool], colour } });
  }

  /** Width of the pen or highlighter, size of the text. */
  get width(): number | undefined {
    const { tool, pen, highlighter, text } = this.get();
    return { pen: pen.width, highlighter: highlighter.width, text: text.size, eraser: undefined }[tool];
  }

  setWidth(width: number): void {
    const { tool, pen, highlighter, text } = this.get();
    if (tool === 'pen') this.patch({ pen: { ...pen, width } });
    if (tool === 'highlighter') this.patch({ highlighter: { ...highlighter, width } });
    if (tool === 'text') this.patch({ text: { ...text, size: width } });
  }
}

function load(key: string, fixedColour: string | undefined): PenCaseState {
  const stored = localStorage.getItem(key);
  const state: PenCaseState =
    stored === null ? DEFAULTS : { ...DEFAULTS, ...(JSON.parse(stored) as PenCaseState) };
  if (fixedColour === undefined) return state;
  return {
    ...state,
    pen: { ...state.pen, colour: fixedColour },
    highlighter: { ...state.highlighter, colour: fixedColour, opacity: 0.35 },
    text: { ...state.text, colour: fixedColour },
  };
}
