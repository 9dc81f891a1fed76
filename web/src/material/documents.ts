/** Endings of the documents that the server turns into pages, for file choosers. */
export const DOCUMENT_ENDINGS =
  '.pdf,.pptx,.ppsx,.pptm,.ppsm,.ppt,.pps,.odp,.docx,.docm,.doc,.odt,.rtf,.md,.txt';

/** Whether a file is a web page, alone or with its parts. */
export function isWebPage({ name }: File): boolean {
  return /\.(x?html?|mht(ml)?)$/i.test(name);
}

function isDocument({ name }: File): boolean {
  return DOCUMENT_ENDINGS.split(',').some((ending) => name.toLowerCase().endsWith(ending));
}

/** Those of some files that can become pages. */
export function pagesIn(files: readonly File[]): File[] {
  return files.filter((file) => isDocument(file) || isWebPage(file));
}

/** What the start page takes: documents, and lessons that were handed out as archives. */
export const LESSON_ENDINGS = `${DOCUMENT_ENDINGS},.zip`;

export function isLessonArchive(name: string): boolean {
  return name.toLowerCase().endsWith('.zip');
}
