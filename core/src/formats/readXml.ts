import type { XmlNode } from './parseXml.js';
import { parseXml } from './parseXml.js';
import { UnreadableFile } from './readMark.js';

/** The elements of a stranger's XML. Throws UnreadableFile: what is wrong with it is no matter to who chose the file. */
export function readXml(xml: string): XmlNode[] {
  try {
    return parseXml(xml);
  } catch {
    // Whoever chose the file can only choose another one.
    throw new UnreadableFile();
  }
}
