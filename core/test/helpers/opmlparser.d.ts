declare module 'opmlparser' {
  import type { Duplex } from 'node:stream';

  interface OutlineNode {
    text: string;
    '#id': number;
    '#parentid': number;
  }

  export default class OpmlParser extends Duplex {
    constructor(options: object);
    meta: Record<string, string>;
    read(): OutlineNode | null;
  }
}
