import type { TextQuote } from '@doodla/core';
import { findChanged } from '@doodla/core/glue';
import { WebText } from '@web/canvas/webText';

/** The words of the documents of a page, looked at again after something in them has changed. */
export class PageWords {
  private texts = new WeakMap<Document, WebText>();

  of(document: Document): WebText {
    let text = this.texts.get(document);
    if (!text) {
      text = new WebText(document);
      this.texts.set(document, text);
    }
    return text;
  }

  /** The content of the page has changed. */
  forget(): void {
    this.texts = new WeakMap();
  }

  /** Where quoted words stand now, however they were edited; undefined where they are gone. */
  find(document: Document, quote: TextQuote): Range | undefined {
    if (!document.body) return undefined;
    const text = this.of(document);
    const found = findChanged(text.text, quote);
    return found && text.rangeOf(found.start, found.end);
  }
}
