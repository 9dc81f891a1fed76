/** What file systems forbid in names. */
// eslint-disable-next-line no-control-regex -- control characters are among it
const FORBIDDEN = /[\\/:*?"<>|\u0000-\u001f]+/g;

/** A title without what file systems forbid, with the ending of a format where there is one. */
export function fileName(title: string, ending?: string): string {
  const plain = title.replace(FORBIDDEN, '-').trim().slice(0, 120) || 'handout';
  return ending === undefined ? plain : `${plain}.${ending}`;
}
