/** Programs that run in processes of their own, by the folder that each is in. */
const FOLDERS = {
  annotations: 'annotations',
  archive: 'archive',
  pdfReader: 'materials',
  strangers: 'reading',
  words: 'words',
} as const;

/** The built program of a process; also where what starts it runs from its source, as in tests. */
export function processScript(name: keyof typeof FOLDERS): URL {
  return new URL(`../../dist/${FOLDERS[name]}/${name}.worker.js`, import.meta.url);
}
