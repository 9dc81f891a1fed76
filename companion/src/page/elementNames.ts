import type { ElementName } from '@doodla/core/glue';

/** Names made by a machine change with every build of a site. */
const MADE_UP = /\d{3,}|[\da-f]{8,}|^:|--|__/i;
const MOST_STEPS = 12;
const PRINT_LETTERS = 60;
/** Most elements that are looked at for one that has moved. */
const MOST_ALIKE = 2000;

/** What an element is like, whatever stands round it: its sort, and the first of what it says or shows. */
function printOf(element: Element): string {
  const { tagName } = element;
  const shown = ['src', 'data', 'alt', 'title', 'name'].map((name) => element.getAttribute(name) ?? '');
  const says = (element.textContent ?? '').slice(0, 4 * PRINT_LETTERS).replace(/\s+/g, ' ');
  const what = shown.find((text) => text !== '') ?? says.trim();
  return `${tagName.toLowerCase()} ${what}`.slice(0, PRINT_LETTERS);
}

/** A name by which an element is found again: steps from the nearest one that has a lasting id. */
export function nameOf(element: Element): ElementName {
  const steps: string[] = [];
  for (let at: Element | null = element; at && steps.length < MOST_STEPS; at = at.parentElement) {
    if (isLasting(at)) {
      steps.unshift(`#${CSS.escape(at.id)}`);
      break;
    }
    steps.unshift(stepTo(at));
  }
  return { css: steps.join(' > '), print: printOf(element) };
}

function isLasting({ id, ownerDocument }: Element): boolean {
  return id !== '' && !MADE_UP.test(id) && ownerDocument.querySelectorAll(`#${CSS.escape(id)}`).length === 1;
}

function stepTo(element: Element): string {
  const tag = CSS.escape(element.localName);
  const alike = [...(element.parentElement?.children ?? [])].filter(
    ({ localName }) => localName === element.localName,
  );
  return alike.length > 1 ? `${tag}:nth-of-type(${alike.indexOf(element) + 1})` : tag;
}

/** The element of a name: the one that its steps lead to, or the only one that is like it; undefined where it is gone. */
export function findByName(document: Document, { css, print }: ElementName): Element | undefined {
  const there = queried(document, css);
  if (there && printOf(there) === print) return there;
  const tag = print.split(' ', 1)[0]!;
  const alike = [...document.getElementsByTagName(tag)]
    .slice(0, MOST_ALIKE)
    .filter((element) => printOf(element) === print);
  if (alike.length === 1) return alike[0];
  // What is alike cannot be told apart but by where it is.
  return there && (alike.length > 1 || there.localName === tag) ? there : undefined;
}

function queried(document: Document, css: string): Element | undefined {
  try {
    return document.querySelector(css) ?? undefined;
  } catch {
    // A name from somebody's file may be no selector at all.
    return undefined;
  }
}
