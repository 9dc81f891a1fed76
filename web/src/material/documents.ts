/** Endings of the documents that the server turns into pages, for file choosers. */
export const DOCUMENT_ENDINGS = '.pdf,.pptx,.ppt,.odp,.docx,.doc,.odt,.rtf,.md,.txt';

export function isDocument({ name }: File): boolean {
  return DOCUMENT_ENDINGS.split(',').some((ending) => name.toLowerCase().endsWith(ending));
}
