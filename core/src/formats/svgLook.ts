import { colord, extend } from 'colord';
import names from 'colord/plugins/names';
import { INK_WIDTH } from '../marks/fields.js';
import type { LineStyle } from '../marks/lineStyle.js';
import type { XmlNode } from './parseXml.js';
import { lengthOf } from './svgLength.js';

extend([names]);

/** How an element looks, with what it has from those around it (SVG 2 §13 and CSS Cascading 4 §7.2). */
export interface SvgLook {
  fill: string | null;
  stroke: string | null;
  strokeWidth: number;
  isDashed: boolean;
  /** What fillings and lines are multiplied by, 0 to 1. */
  fillOpacity: number;
  strokeOpacity: number;
  opacity: number;
  fontSize: number;
  isBold: boolean;
  isItalic: boolean;
  anchor: 'start' | 'middle' | 'end';
  colour: string;
  isShown: boolean;
}

export const PLAIN_LOOK: SvgLook = {
  fill: '#000000',
  stroke: null,
  strokeWidth: 1,
  isDashed: false,
  fillOpacity: 1,
  strokeOpacity: 1,
  opacity: 1,
  fontSize: 16,
  isBold: false,
  isItalic: false,
  anchor: 'start',
  colour: '#000000',
  isShown: true,
};

/** The look of an element within one of a look: its attributes, then rules of its classes, then its own style. */
export function inherited(outer: SvgLook, node: XmlNode, classes: ReadonlyMap<string, string>): SvgLook {
  const rules = (node.attributes['class'] ?? '').split(/\s+/).map((name) => classes.get(name) ?? '');
  const declared = declarations([...rules, node.attributes['style'] ?? ''].join(';'));
  const get = (key: string) => declared.get(key) ?? node.attributes[key];
  const colour = paintOf(get('color'), outer.colour, outer.colour) ?? outer.colour;
  const part = (key: string, before: number) => partOf(get(key)) ?? before;
  const weight = get('font-weight');
  const style = get('font-style');
  const dash = get('stroke-dasharray');
  return {
    fill: paintOf(get('fill'), outer.fill, colour),
    stroke: paintOf(get('stroke'), outer.stroke, colour),
    strokeWidth: lengthOf(get('stroke-width')) ?? outer.strokeWidth,
    isDashed: dash === undefined ? outer.isDashed : dash !== 'none',
    fillOpacity: part('fill-opacity', outer.fillOpacity),
    strokeOpacity: part('stroke-opacity', outer.strokeOpacity),
    opacity: outer.opacity * (partOf(get('opacity')) ?? 1),
    fontSize: lengthOf(get('font-size')) ?? outer.fontSize,
    isBold: weight === undefined ? outer.isBold : weight === 'bold' || Number(weight) >= 600,
    isItalic: style === undefined ? outer.isItalic : style !== 'normal',
    anchor: anchorOf(get('text-anchor')) ?? outer.anchor,
    colour,
    isShown: outer.isShown && get('display') !== 'none' && get('visibility') !== 'hidden',
  };
}

/** The look of lines and filled shapes, lines as wide as `scale` makes them. */
export function lookOf(look: SvgLook, scale: number): LineStyle {
  const line = look.stroke !== null && look.strokeWidth > 0 ? look.stroke : null;
  const own = look.fill === null ? look.strokeOpacity : look.fillOpacity;
  return {
    line,
    width: inkWidth(look.strokeWidth * scale),
    dash: look.isDashed ? 'dashed' : 'solid',
    fill: look.fill,
    opacity: Math.round(Math.min(1, Math.max(0.05, look.opacity * own)) * 100) / 100,
  };
}

/** Width of a line, within what lines may have, page units. */
function inkWidth(value: number): number {
  return Math.round(Math.min(INK_WIDTH.max, Math.max(INK_WIDTH.min, value)) * 100) / 100;
}

function declarations(css: string): Map<string, string> {
  const found = new Map<string, string>();
  for (const [, key, value] of css.matchAll(/([\w-]+)\s*:\s*([^;]+)/g))
    found.set(key!, value!.replace(/!important/, '').trim());
  return found;
}

/** A colour as #rrggbb; null for none; what is under a gradient is taken for its own grey. */
function paintOf(value: string | undefined, outer: string | null, current: string): string | null {
  const text = value?.trim();
  if (text === undefined || text === '' || text === 'inherit') return outer;
  if (text === 'none' || text === 'transparent') return null;
  if (text === 'currentColor' || text === 'currentcolor') return current;
  if (text.startsWith('url(')) return '#999999';
  const colour = colord(text);
  return colour.isValid() ? colour.alpha(1).toHex() : outer;
}

function partOf(value: string | undefined): number | undefined {
  if (value === undefined) return undefined;
  const number = value.endsWith('%') ? parseFloat(value) / 100 : Number(value);
  return Number.isFinite(number) ? Math.min(1, Math.max(0, number)) : undefined;
}

function anchorOf(value: string | undefined): SvgLook['anchor'] | undefined {
  return value === 'start' || value === 'middle' || value === 'end' ? value : undefined;
}
