import katex from 'katex';
import { MAX_TEX } from '../marks/formula/formulaMark.js';
import { FormulaError } from './faults.js';

/** KaTeX's own tree of boxes, as far as it is needed here; lengths are strings in em. */
export interface TreeNode {
  classes?: readonly string[];
  style?: Readonly<Partial<Record<TreeStyle, string>>>;
  children?: readonly TreeNode[];
  attributes?: Readonly<Record<string, string>>;
  text?: string;
  width?: number;
  italic?: number;
  toMarkup(): string;
}
type TreeStyle =
  | 'borderBottomWidth'
  | 'borderRightWidth'
  | 'borderTopWidth'
  | 'bottom'
  | 'color'
  | 'height'
  | 'left'
  | 'marginLeft'
  | 'marginRight'
  | 'minWidth'
  | 'paddingLeft'
  | 'top'
  | 'verticalAlign'
  | 'width';

/** A part of KaTeX's own tree of what was read; its fields depend on its type. */
export interface ReadNode {
  type: string;
  [field: string]: unknown;
}

/** Nothing in a formula may reach out of it, run long or grow large. */
const SETTINGS = {
  displayMode: true,
  throwOnError: true,
  strict: 'ignore',
  trust: false,
  maxExpand: 300,
  maxSize: 20,
} as const;

const inner = katex as unknown as {
  __renderToDomTree(tex: string, settings: object): TreeNode;
  __parse(tex: string, settings: object): readonly ReadNode[];
};

/** Boxes of a formula. Throws a `FormulaError`. */
export function boxesOf(tex: string): TreeNode {
  return reading(tex, () => inner.__renderToDomTree(tex, { ...SETTINGS, output: 'html' }));
}

/** A formula as it was read. Throws a `FormulaError`. */
export function partsOf(tex: string): readonly ReadNode[] {
  return reading(tex, () => inner.__parse(tex, SETTINGS));
}

/** A formula as MathML (W3C MathML Core), with its TeX as a note. Throws a `FormulaError`. */
export function mathMlOf(tex: string): string {
  const html = reading(tex, () => katex.renderToString(tex, { ...SETTINGS, output: 'mathml' }));
  return /<math[\s\S]*<\/math>/.exec(html)![0];
}

function reading<T>(tex: string, read: () => T): T {
  if (tex.length > MAX_TEX) throw new FormulaError('tooLong', String(MAX_TEX));
  try {
    return read();
  } catch (error) {
    if (!(error instanceof Error)) throw error;
    const at = 'position' in error && typeof error.position === 'number' ? error.position : undefined;
    throw new FormulaError('unreadable', at === undefined ? tex : tex.slice(at, at + 12));
  }
}
