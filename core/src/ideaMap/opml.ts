import { XMLBuilder } from 'fast-xml-parser';
import type { XmlNode } from '../formats/parseXml.js';
import { elementsNamed, parseXml, textIn } from '../formats/parseXml.js';
import type { OutlineItem } from './outline.js';
import { checkedOutline, OutlineError } from './outline.js';

const BUILDER = new XMLBuilder({
  preserveOrder: true,
  ignoreAttributes: false,
  attributeNamePrefix: '',
  format: true,
  suppressEmptyNode: true,
});

interface Built {
  [name: string]: unknown;
}

const element = (name: string, attributes: object, children: Built[]): Built => ({
  [name]: children,
  ':@': attributes,
});

/** An idea and all that hangs on it as OPML 2.0 (opml.org/spec2.opml): one outline element for each. */
export function writeOpml(root: OutlineItem): string {
  const head = element('head', {}, [element('title', {}, [{ '#text': root.text }])]);
  const opml = element('opml', { version: '2.0' }, [head, element('body', {}, [outlineOf(root)])]);
  const declared = element('?xml', { version: '1.0', encoding: 'UTF-8' }, [{ '#text': '' }]);
  return `${String(BUILDER.build([declared, opml])).trim()}\n`;
}

const outlineOf = ({ text, children }: OutlineItem): Built =>
  element('outline', { text }, children.map(outlineOf));

/** Reads OPML of any version. Throws `OutlineError` where it is none or empty. */
export function readOpml(xml: string): { title: string; items: OutlineItem[] } {
  const nodes = parsed(xml);
  const [body] = elementsNamed('body', nodes);
  if (!body || elementsNamed('opml', nodes).length === 0) throw new OutlineError('not-opml');
  const title = textIn(elementsNamed('title', nodes).slice(0, 1)).trim();
  return { title, items: checkedOutline(itemsOf(body.children)) };
}

function parsed(xml: string): XmlNode[] {
  try {
    return parseXml(xml);
  } catch (error) {
    throw new OutlineError('not-opml', { cause: error });
  }
}

const itemsOf = (nodes: readonly XmlNode[]): OutlineItem[] =>
  nodes
    .filter(({ name }) => name === 'outline')
    .map(({ attributes, children }) => ({
      text: attributes.text ?? attributes.title ?? '',
      children: itemsOf(children),
    }));
