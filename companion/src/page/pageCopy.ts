/** Larger pictures are left to be fetched by whoever keeps the copy. */
const MOST_PICTURE = 3_000_000;

/**
 * The page as it is now, as one HTML text: what scripts have made of it, its style sheets as far as they can be read, pictures that
 * are this place's own, what was filled in. Scripts, passwords and all that is `ours` are left out.
 */
export function copyOf(page: Document, ours: readonly Element[]): string {
  const copy = page.documentElement.cloneNode(true) as HTMLElement;
  const originals = [page.documentElement, ...page.documentElement.querySelectorAll('*')];
  const copies = [copy, ...copy.querySelectorAll('*')];
  const gone: Element[] = [];
  originals.forEach((original, i) => {
    const own = copies[i]!;
    if (ours.includes(original) || /^(SCRIPT|NOSCRIPT|TEMPLATE)$/.test(original.tagName)) gone.push(own);
    else takeOver(original, own);
  });
  for (const element of gone) element.remove();
  copy.querySelector('head')?.append(...readableStyles(page).map((css) => styleOf(page, css)));
  return `<!doctype html>${copy.outerHTML}`;
}

/** Brings into a copy what an element holds beside its attributes, and makes its addresses whole. */
function takeOver(original: Element, copy: Element): void {
  for (const { name } of [...copy.attributes]) if (name.startsWith('on')) copy.removeAttribute(name);
  if (original instanceof HTMLImageElement) {
    copy.removeAttribute('srcset');
    copy.removeAttribute('loading');
    copy.setAttribute(
      'src',
      pictureData(original, original.naturalWidth, original.naturalHeight) ?? original.currentSrc,
    );
  } else if (original instanceof HTMLCanvasElement) replaceCanvas(original, copy);
  else if (original instanceof HTMLInputElement) {
    if (original.type !== 'password') copy.setAttribute('value', original.value);
    copy.toggleAttribute('checked', original.checked);
  } else if (original instanceof HTMLTextAreaElement) copy.textContent = original.value;
  else if (original instanceof HTMLAnchorElement && original.href !== '')
    copy.setAttribute('href', original.href);
  else if (original instanceof HTMLLinkElement) copy.setAttribute('href', original.href);
}

function replaceCanvas(original: HTMLCanvasElement, copy: Element): void {
  const data = pictureData(original, original.width, original.height);
  if (data === undefined) return;
  const picture = original.ownerDocument.createElement('img');
  picture.src = data;
  const { width, height } = original.getBoundingClientRect();
  picture.style.cssText = `${original.style.cssText};width:${width}px;height:${height}px`;
  copy.replaceWith(picture);
}

/** A picture as data; undefined for those of other places, which the browser does not let us read. */
function pictureData(picture: CanvasImageSource, width: number, height: number): string | undefined {
  if (width === 0 || height === 0) return undefined;
  try {
    const canvas = document.createElement('canvas');
    Object.assign(canvas, { width, height });
    canvas.getContext('2d')!.drawImage(picture, 0, 0, width, height);
    const data = canvas.toDataURL('image/webp', 0.9);
    return data.length > MOST_PICTURE ? undefined : data;
  } catch {
    // It has pixels of another place; its address is left, to be fetched by whoever keeps the copy.
    return undefined;
  }
}

/** Style sheets that scripts may have changed, or that are none of the page's text; those of other places cannot be read. */
function readableStyles(page: Document): string[] {
  return [...page.styleSheets, ...page.adoptedStyleSheets].flatMap((sheet) => {
    try {
      return [[...sheet.cssRules].map(({ cssText }) => cssText).join('\n')];
    } catch {
      // Of another place, which may not be read; the link to it is still in the copy.
      return [];
    }
  });
}

function styleOf(page: Document, css: string): HTMLStyleElement {
  const style = page.createElement('style');
  style.textContent = css.replaceAll('</', '<\\/');
  return style;
}
