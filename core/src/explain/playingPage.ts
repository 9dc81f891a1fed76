import { element, xmlText } from '../formats/xml.js';

interface PlayingPage {
  readonly title: string;
  /** BCP 47. */
  readonly language: string;
  /** What plays it, a classic script, and how that looks. */
  readonly script: string;
  readonly style: string;
  /** What the script reads, by the ids of elements that hold it as text: JSON or base64. */
  readonly brought: Readonly<Record<string, string>>;
}

/** Nothing is fetched, and nothing runs but what is in the page (Content Security Policy Level 3). */
const POLICY = [
  "default-src 'none'",
  "script-src 'unsafe-inline'",
  "style-src 'unsafe-inline'",
  'img-src data: blob:',
  'media-src blob:',
  'font-src data:',
].join('; ');

/** A page that plays by itself: one HTML file that needs no other. */
export function playingPage({ title, language, script, style, brought }: PlayingPage): string {
  const parts = Object.entries(brought).map(([id, text]) =>
    element('script', { type: 'text/plain', id }, quiet(text)),
  );
  return `<!DOCTYPE html>
<html lang="${xmlText(language)}">
<head>
<meta charset="utf-8"/>
<meta http-equiv="Content-Security-Policy" content="${POLICY}"/>
<meta name="viewport" content="width=device-width, initial-scale=1"/>
<title>${xmlText(title)}</title>
<style>${style.replaceAll('</', '<\\/')}</style>
</head>
<body>
<div id="root"></div>
${parts.join('\n')}
<script>${script.replaceAll('</script', '<\\/script')}</script>
</body>
</html>
`;
}

/** JSON in which nothing can end the element that holds it (HTML, "Restrictions for contents of script elements"). */
const quiet = (text: string) => text.replaceAll('<', '\\u003c');
