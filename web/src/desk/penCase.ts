import type { InkStyle } from '@doodla/core';
import { Store } from '@doodla/core/client';
import { SHARED_OPACITY } from '../tools/highlighter/facts';
import type { KeptByTools, ToolId } from '../tools/tools';
import { KEPT_AT_FIRST, TOOL_IDS, toolOf } from '../tools/tools';

/** What each tool works with, and which one is in hand. */
export interface PenCaseState extends KeptByTools {
  tool: ToolId;
  /** Pens one tap away. */
  ready: readonly InkStyle[];
}

const DEFAULTS: PenCaseState = {
  ...KEPT_AT_FIRST,
  tool: 'pen',
  ready: [
    { nature: 'pen', colour: '#000000', width: 4, opacity: 1 },
    { nature: 'pen', colour: '#0072b2', width: 4, opacity: 1 },
    { nature: 'marker', colour: '#d55e00', width: 9, opacity: 1 },
    { nature: 'highlighter', colour: '#f0e442', width: 22, opacity: 0.55 },
  ],
};

/** Where the tools in hand are kept. */
type Keeper = Pick<Storage, 'getItem' | 'setItem'>;

/** The tools in hand, kept in the browser. A student's ink always has the colour that the class knows them by. */
export class PenCase extends Store<PenCaseState> {
  constructor(
    key: string,
    readonly fixedColour?: string,
    keeper: Keeper = localStorage,
  ) {
    super(load(keeper.getItem(key), fixedColour));
    this.subscribe(() => keeper.setItem(key, JSON.stringify(this.get())));
  }

  /** Colour of the tool in hand, or undefined for one that has none. */
  get colour(): string | undefined {
    const state = this.get();
    return toolOf(state.tool).colour?.of(state);
  }

  setColour(colour: string): void {
    const state = this.get();
    const changed = toolOf(state.tool).colour?.with(state, colour);
    if (changed) this.patch(changed);
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

function load(stored: string | null, fixedColour: string | undefined): PenCaseState {
  const state: PenCaseState =
    stored === null ? DEFAULTS : { ...DEFAULTS, ...(JSON.parse(stored) as PenCaseState) };
  return fixedColour === undefined ? state : inOneColour(state, fixedColour);
}

function inOneColour(state: PenCaseState, colour: string): PenCaseState {
  const changed = TOOL_IDS.map((id) => {
    const tool = toolOf(id);
    return tool.inOneColour?.(state, colour) ?? tool.colour?.with(state, colour);
  });
  const ready = state.ready.map((pen) => ({
    ...pen,
    colour,
    opacity: pen.nature === 'highlighter' ? SHARED_OPACITY : 1,
  }));
  return Object.assign({ ...state, ready }, ...changed) as PenCaseState;
}

/** Whether two pens write alike. */
export function isSamePen(a: InkStyle, b: InkStyle | undefined): boolean {
  return (
    b !== undefined &&
    a.nature === b.nature &&
    a.colour === b.colour &&
    a.width === b.width &&
    a.opacity === b.opacity
  );
}

/** The places of ready pens, without those that write like one before. */
export function placesThatDiffer(ready: readonly InkStyle[]): number[] {
  return ready.flatMap((pen, i) => (ready.findIndex((other) => isSamePen(other, pen)) === i ? [i] : []));
}
