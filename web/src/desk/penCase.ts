import type { Form, InkStyle, LineStyle, MarkOf, Nature, StampName, TextStyle } from '@doodla/core';
import { Store } from '@doodla/core/client';

export const TOOLS = [
  'select',
  'pen',
  'highlighter',
  'text',
  'eraser',
  'shape',
  'line',
  'stamp',
  'note',
  'fill',
  'pointer',
  'wisp',
  'patch',
  'enlarge',
  'outline',
] as const;
export type ToolId = (typeof TOOLS)[number];

export type PenNature = Exclude<Nature, 'highlighter'>;

/** What the line tool draws: `corners` by clicking, the others by dragging. */
export const LINE_TYPES = {
  line: { course: 'straight', heads: 'none', corners: false, closed: false },
  arrow: { course: 'straight', heads: 'end', corners: false, closed: false },
  doubleArrow: { course: 'straight', heads: 'both', corners: false, closed: false },
  elbow: { course: 'elbow', heads: 'end', corners: false, closed: false },
  curve: { course: 'quadratic', heads: 'none', corners: false, closed: false },
  wave: { course: 'cubic', heads: 'none', corners: false, closed: false },
  polyline: { course: 'straight', heads: 'none', corners: true, closed: false },
  polygon: { course: 'straight', heads: 'none', corners: true, closed: true },
} as const satisfies Record<
  string,
  Pick<MarkOf<'path'>, 'course' | 'heads' | 'closed'> & { corners: boolean }
>;
export type LineType = keyof typeof LINE_TYPES;

/** What each tool works with, and which one is in hand. */
export interface PenCaseState {
  tool: ToolId;
  pen: InkStyle & { nature: PenNature };
  highlighter: InkStyle;
  /** Whether the highlighter draws straight along the line of writing. */
  straightHighlighter: boolean;
  /** Whether the highlighter marks whole words on web pages, and how they look. */
  markWords: boolean;
  wordsLook: MarkOf<'quote'>['look'];
  text: TextStyle;
  /** Line and filling of shapes and lines. */
  outline: LineStyle;
  form: Form;
  sides: number;
  line: LineType;
  stamp: StampName;
  stampColour: string;
  noteColour: string;
  fillColour: string;
  /** Gaps in an outline up to this width are bridged, page units. */
  fillGap: number;
  eraser: 'whole' | 'rubber';
  /** Radius of the eraser's tip, CSS pixels on screen. */
  eraserRadius: number;
  /** How much a shaking hand is steadied, 0 to 0.9. */
  steadying: number;
  /** What a finger does once a pen has been used. */
  finger: 'write' | 'move' | 'nothing';
  /** The pen of whoever writes on the half away from the tools; null where all write with the same. */
  otherHand: InkStyle | null;
  /** One of the teacher's own stamps; null for the ready-made one. */
  ownStamp: string | null;
  /** Whether keys are shown on the glass while typing. */
  screenKeyboard: boolean;
  /** Seconds after which a wisp has faded. */
  wispSeconds: number;
  patchColour: string;
  /** Pens one tap away. */
  ready: readonly InkStyle[];
}

const DEFAULTS: PenCaseState = {
  tool: 'pen',
  pen: { nature: 'pen', colour: '#000000', width: 4, opacity: 1 },
  highlighter: { nature: 'highlighter', colour: '#f0e442', width: 22, opacity: 0.55 },
  straightHighlighter: false,
  markWords: true,
  wordsLook: 'highlight',
  text: {
    font: 'andika',
    size: 28,
    colour: '#000000',
    bold: false,
    italic: false,
    underline: false,
    background: null,
    align: 'left',
    list: 'none',
  },
  outline: { line: '#000000', width: 3, dash: 'solid', fill: null, opacity: 1 },
  form: 'rectangle',
  sides: 5,
  line: 'line',
  stamp: 'tick',
  stampColour: '#009e73',
  noteColour: '#f0e442',
  fillColour: '#56b4e9',
  fillGap: 8,
  eraser: 'whole',
  eraserRadius: 10,
  steadying: 0.35,
  finger: 'move',
  otherHand: null,
  ownStamp: null,
  screenKeyboard: false,
  wispSeconds: 3,
  patchColour: '#5b6b8c',
  ready: [
    { nature: 'pen', colour: '#000000', width: 4, opacity: 1 },
    { nature: 'pen', colour: '#0072b2', width: 4, opacity: 1 },
    { nature: 'marker', colour: '#d55e00', width: 9, opacity: 1 },
    { nature: 'highlighter', colour: '#f0e442', width: 22, opacity: 0.55 },
  ],
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
    const state = this.get();
    switch (state.tool) {
      case 'pen':
      case 'highlighter':
      case 'text':
        return state[state.tool].colour;
      case 'shape':
      case 'line':
        return state.outline.line ?? state.outline.fill ?? undefined;
      case 'stamp':
        return state.stampColour;
      case 'note':
        return state.noteColour;
      case 'fill':
        return state.fillColour;
      case 'wisp':
        return state.pen.colour;
      case 'patch':
        return state.patchColour;
      default:
        return undefined;
    }
  }

  setColour(colour: string): void {
    const state = this.get();
    switch (state.tool) {
      case 'pen':
      case 'highlighter':
      case 'text':
        return this.patch({ [state.tool]: { ...state[state.tool], colour } });
      case 'shape':
      case 'line':
        return this.patch({
          outline: { ...state.outline, [state.outline.line === null ? 'fill' : 'line']: colour },
        });
      case 'stamp':
        return this.patch({ stampColour: colour });
      case 'note':
        return this.patch({ noteColour: colour });
      case 'fill':
        return this.patch({ fillColour: colour });
      case 'wisp':
        return this.patch({ pen: { ...state.pen, colour } });
      case 'patch':
        return this.patch({ patchColour: colour });
      default:
        return undefined;
    }
  }

  /** Takes a ready pen in hand. */
  takeReady(style: InkStyle): void {
    if (style.nature === 'highlighter') this.patch({ tool: 'highlighter', highlighter: style });
    else this.patch({ tool: 'pen', pen: style as PenCaseState['pen'] });
  }

  /** The ink in hand; undefined while another tool is. */
  get ink(): InkStyle | undefined {
    const { tool, pen, highlighter } = this.get();
    return tool === 'pen' ? pen : tool === 'highlighter' ? highlighter : undefined;
  }

  /** Keeps the ink in hand as the n-th ready pen. */
  keepReady(n: number): void {
    const { ink } = this;
    if (ink) this.patch({ ready: this.get().ready.map((pen, i) => (i === n ? ink : pen)) });
  }
}

function load(key: string, fixedColour: string | undefined): PenCaseState {
  const stored = localStorage.getItem(key);
  const state: PenCaseState =
    stored === null ? DEFAULTS : { ...DEFAULTS, ...(JSON.parse(stored) as PenCaseState) };
  return fixedColour === undefined ? state : inOneColour(state, fixedColour);
}

function inOneColour(state: PenCaseState, colour: string): PenCaseState {
  return {
    ...state,
    pen: { ...state.pen, colour },
    highlighter: { ...state.highlighter, colour, opacity: 0.35 },
    text: { ...state.text, colour },
    outline: { ...state.outline, line: colour, fill: state.outline.fill && colour },
    otherHand: state.otherHand && { ...state.otherHand, colour },
    stampColour: colour,
    noteColour: colour,
    fillColour: colour,
    ready: state.ready.map((pen) => ({ ...pen, colour, opacity: pen.nature === 'highlighter' ? 0.35 : 1 })),
  };
}
