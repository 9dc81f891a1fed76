import { marked } from 'marked';
import { readFile } from 'node:fs/promises';

/** A plain or Markdown (CommonMark) text as a web page without anything that would be fetched or run. */
export async function textAsHtml(path: string, kind: 'md' | 'txt'): Promise<string> {
  const text = await readFile(path, 'utf8');
  const body = kind === 'txt' ? `<pre>${escaped(text)}</pre>` : await marked.parse(escaped(text));
  return `<!doctype html><html><head><meta charset="utf-8"></head><body>${body.replace(/<img[^<>]*>/g, '')}</body></html>`;
}

/** Tags in a text are words like any others. */
function escaped(text: string): string {
  return text.replace(/&/g, '&amp;').replace(/</g, '&lt;');
}
