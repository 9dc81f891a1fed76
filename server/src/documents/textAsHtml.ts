import { Marked } from 'marked';
import { readFile } from 'node:fs/promises';
import { decodeText } from './textEncoding.js';

/** Markdown (CommonMark) in which tags are words like any others, and nothing is fetched. */
const markdown = new Marked({
  renderer: {
    html: ({ text }) => escaped(text),
    image: ({ text }) => escaped(text),
  },
});

/** A plain or Markdown text as a web page without anything that would be fetched or run. */
export async function textAsHtml(path: string, kind: 'md' | 'txt'): Promise<string> {
  const text = decodeText(await readFile(path)) ?? '';
  const body = kind === 'txt' ? `<pre>${escaped(text)}</pre>` : await markdown.parse(text);
  return `<!doctype html><html><head><meta charset="utf-8"></head><body>${body}</body></html>`;
}

function escaped(text: string): string {
  return text.replace(/&/g, '&amp;').replace(/</g, '&lt;');
}
