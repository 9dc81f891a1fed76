import { Store } from '@doodla/core/client';
import { authorised } from '../api/http';

/** When a picture that could not be fetched is asked for again. */
const RETRY_MS = 4000;

/** Pictures on pages, fetched once and kept decoded. */
export class PictureCache {
  /** Counts pictures that have arrived. */
  readonly arrived = new Store(0);
  private readonly bitmaps = new Map<string, ImageBitmap | 'loading' | 'missing'>();
  private readonly fetching = new Map<string, Promise<void>>();

  constructor(private readonly token?: string) {}

  /** The picture, if it is here; otherwise it is fetched. */
  get(material: string): ImageBitmap | undefined {
    const known = this.bitmaps.get(material);
    if (known === undefined) void this.fetchOnce(material);
    return known instanceof ImageBitmap ? known : undefined;
  }

  /** Keeps a picture that was made here. */
  put(material: string, bitmap: ImageBitmap): void {
    this.bitmaps.set(material, bitmap);
    this.arrived.set(this.arrived.get() + 1);
  }

  close(): void {
    for (const bitmap of this.bitmaps.values()) if (bitmap instanceof ImageBitmap) bitmap.close();
    this.bitmaps.clear();
  }

  /** The picture, once it has been fetched; undefined where it cannot be had. */
  async load(material: string): Promise<ImageBitmap | undefined> {
    const known = this.bitmaps.get(material);
    if (known instanceof ImageBitmap) return known;
    await this.fetchOnce(material);
    const now = this.bitmaps.get(material);
    return now instanceof ImageBitmap ? now : undefined;
  }

  private fetchOnce(material: string): Promise<void> {
    let task = this.fetching.get(material);
    if (!task) {
      task = this.fetch(material).finally(() => this.fetching.delete(material));
      this.fetching.set(material, task);
    }
    return task;
  }

  private async fetch(material: string): Promise<void> {
    this.bitmaps.set(material, 'loading');
    try {
      const response = await fetch(`/api/pictures/${material}`, { headers: authorised(this.token) });
      if (response.ok) this.put(material, await createImageBitmap(await response.blob()));
      else this.bitmaps.set(material, 'missing');
    } catch {
      // The line broke off: it is asked for again when it is drawn after a while.
      setTimeout(() => {
        if (this.bitmaps.get(material) !== 'loading') return;
        this.bitmaps.delete(material);
        this.arrived.set(this.arrived.get() + 1);
      }, RETRY_MS);
    }
  }
}
