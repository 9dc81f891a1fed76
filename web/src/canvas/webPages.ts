import { fetchStored } from '../api/http';
import { t } from '../words';

/** Copies of web pages, fetched once. */
export class WebPages {
  private readonly pages = new Map<string, Promise<string>>();

  constructor(private readonly token?: string) {}

  /** The whole document, which needs nothing from anywhere. Throws where it cannot be fetched. */
  html(material: string): Promise<string> {
    let page = this.pages.get(material);
    if (!page) {
      page = this.fetch(material);
      this.pages.set(material, page);
      page.catch(() => this.pages.delete(material));
    }
    return page;
  }

  /** Where the page was fetched from; undefined where it came as a file. */
  async source(material: string): Promise<string | undefined> {
    const address = new DOMParser().parseFromString(await this.html(material), 'text/html').documentElement
      .dataset.source;
    return address === undefined || new URL(address).hostname.endsWith('.invalid') ? undefined : address;
  }

  private async fetch(material: string): Promise<string> {
    const address = `/api/materials/${material}/page`;
    const { token } = this;
    return (await fetchStored(address, { token }, t('canvas.theWebPageCouldNot'))).text();
  }
}
