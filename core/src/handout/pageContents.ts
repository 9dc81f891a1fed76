import type { PDFPage } from '@cantoo/pdf-lib';
import { decodePDFRawStream, PDFArray, PDFName, PDFRawStream, PDFStream } from '@cantoo/pdf-lib';
import { zlibSync } from 'fflate';
import { balanced } from './operators.js';

/**
 * Makes a page ready to be drawn on: what it shows leaves no trace in the state of the graphics, and is nobody else's,
 * where pages share a stream.
 */
export function prepareContents(page: PDFPage): void {
  const { context } = page.doc;
  const own = PDFArray.withContext(context);
  const change = balanced(contentOf(page));
  if (change) {
    const stream = context.stream(zlibSync(change), { Filter: 'FlateDecode' });
    own.push(context.register(stream));
  } else {
    const contents = page.node.get(PDFName.of('Contents'));
    const list = context.lookup(contents);
    if (list instanceof PDFArray) for (const each of list.asArray()) own.push(each);
    else if (contents) own.push(contents);
  }
  page.node.set(PDFName.of('Contents'), own);
  page.node.normalize();
}

/** What a page's streams say one after the other; only as far as they can be read. */
function contentOf(page: PDFPage): Uint8Array {
  const contents = page.node.Contents();
  const streams = contents instanceof PDFArray ? contents.asArray() : [contents];
  const parts = streams.flatMap((entry) => {
    const stream = page.doc.context.lookup(entry);
    return stream instanceof PDFStream ? [bytesOf(stream), Uint8Array.of(10)] : [];
  });
  const all = new Uint8Array(parts.reduce((sum, { length }) => sum + length, 0));
  let at = 0;
  for (const part of parts) {
    all.set(part, at);
    at += part.length;
  }
  return all;
}

function bytesOf(stream: PDFStream): Uint8Array {
  return stream instanceof PDFRawStream ? decodePDFRawStream(stream).decode() : stream.getContents();
}
