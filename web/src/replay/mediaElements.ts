/** What plays files in a page, by take; closing lets go of them. */
export class MediaElements<Element extends HTMLMediaElement> {
  readonly byTake: ReadonlyMap<string, Element>;
  private readonly addresses: string[] = [];

  /** `make` makes an element that plays nothing yet. */
  constructor(files: ReadonlyMap<string, Blob>, make: () => Element) {
    this.byTake = new Map(
      [...files].map(([take, file]) => {
        const element = make();
        const address = URL.createObjectURL(file);
        this.addresses.push(address);
        element.preload = 'auto';
        element.src = address;
        return [take, element];
      }),
    );
  }

  close(): void {
    for (const element of this.byTake.values()) element.pause();
    for (const address of this.addresses) URL.revokeObjectURL(address);
  }
}

/** Plays files of sound. */
export const soundElements = (files: ReadonlyMap<string, Blob>) =>
  new MediaElements(files, () => new Audio());

/** Plays videos, of which nothing is heard: what is heard is in the voice. */
export const videoElements = (files: ReadonlyMap<string, Blob>) =>
  new MediaElements(files, () => {
    const video = document.createElement('video');
    video.muted = true;
    video.playsInline = true;
    return video;
  });
