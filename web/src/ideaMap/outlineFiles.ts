import type { OutlineItem } from '@doodla/core/idea-map';
import {
  OutlineError,
  readIndented,
  readMarkdown,
  readOpml,
  rootedOutline,
  writeMarkdown,
  writeOpml,
} from '@doodla/core/idea-map';
import { fileName } from '../handout/fileName';
import { saveFile } from '../handout/saveFile';
import { t } from '../words';

/** Largest file that is read, bytes. */
const MOST_BYTES = 2_000_000;

/** Saves a map for other programs. */
export function saveOutline(outline: OutlineItem, as: 'opml' | 'md'): void {
  const text = as === 'opml' ? writeOpml(outline) : writeMarkdown(outline);
  const type = as === 'opml' ? 'text/x-opml' : 'text/markdown';
  saveFile(new Blob([text], { type }), fileName(outline.text || t('ideaMap.title'), as));
}

/** Reads a map that another program or this one has saved. Throws an error with a sentence for the user. */
export async function readOutline(file: File): Promise<OutlineItem> {
  if (file.size > MOST_BYTES) throw new Error(t('ideaMap.tooLarge'));
  const text = await file.text().catch(() => {
    throw new Error(t('ideaMap.gone'));
  });
  return outlineIn(text, file.name.replace(/\.[^.]*$/, ''));
}

/** Reads OPML, Markdown or lines that are moved in. Throws an error with a sentence for the user. */
export function outlineIn(text: string, title: string): OutlineItem {
  try {
    if (/^\s*(?:\ufeff)?\s*<(?:\?xml|opml)/i.test(text)) {
      const read = readOpml(text.replace(/^\ufeff/, ''));
      return rootedOutline(read.items, read.title || title);
    }
    const isMarkdown = /^#{1,6} /m.test(text);
    return rootedOutline(isMarkdown ? readMarkdown(text) : readIndented(text), title);
  } catch (error) {
    if (error instanceof OutlineError) throw new Error(t(SENTENCES[error.fault]), { cause: error });
    throw error;
  }
}

const SENTENCES = {
  empty: 'ideaMap.empty',
  'too-many': 'ideaMap.tooMany',
  'not-opml': 'ideaMap.notOpml',
} as const;
