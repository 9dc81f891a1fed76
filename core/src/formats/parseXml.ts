import { XMLParser } from 'fast-xml-parser';

/** An element of a document, or some text, which has no name. */
export interface XmlNode {
  name: string;
  attributes: Record<string, string>;
  children: XmlNode[];
  text: string;
}

type Parsed = Record<string, unknown>;

const ATTRIBUTES = ':@';
const TEXT = '#text';
const PARSER = new XMLParser({
  preserveOrder: true,
  ignoreAttributes: false,
  attributeNamePrefix: '',
  parseTagValue: false,
  trimValues: false,
});

/** Everything in a document, in its order. Throws where it is no XML, or nested or expanding without measure. */
export function parseXml(xml: string): XmlNode[] {
  return (PARSER.parse(xml) as Parsed[]).map(nodeOf);
}

function nodeOf(parsed: Parsed): XmlNode {
  const attributes = (parsed[ATTRIBUTES] ?? {}) as Record<string, string>;
  const name = Object.keys(parsed).find((key) => key !== ATTRIBUTES) ?? '';
  if (name === TEXT) return { name: '', attributes, children: [], text: String(parsed[TEXT]) };
  return { name, attributes, children: (parsed[name] as Parsed[]).map(nodeOf), text: '' };
}

/** All elements of a name, at whatever depth, in the order in which they begin. */
export function elementsNamed(name: string, nodes: readonly XmlNode[]): XmlNode[] {
  return nodes.flatMap((node) => [
    ...(node.name === name ? [node] : []),
    ...elementsNamed(name, node.children),
  ]);
}

/** The text in elements, without that in inner ones of a name. */
export function textIn(nodes: readonly XmlNode[], without?: string): string {
  return nodes
    .map((node) => (node.name === without ? '' : node.text + textIn(node.children, without)))
    .join('');
}
