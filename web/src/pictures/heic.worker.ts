import { expose, transfer } from 'comlink';
import libheif from 'libheif-js/wasm-bundle';

export interface Pixels {
  width: number;
  height: number;
  /** RGBA, rows from the top. */
  data: Uint8ClampedArray<ArrayBuffer>;
}

const worker = {
  /** The first picture of an HEIF file (ISO/IEC 23008-12), turned as the file says. Throws where there is none. */
  async decode(bytes: ArrayBuffer): Promise<Pixels> {
    const [image] = new libheif.HeifDecoder().decode(bytes);
    if (!image) throw new Error('no picture');
    const [width, height] = [image.get_width(), image.get_height()];
    const data = new Uint8ClampedArray(width * height * 4);
    await new Promise<void>((resolve, reject) => {
      image.display({ data, width, height }, (shown) =>
        shown ? resolve() : reject(new Error('not decoded')),
      );
    });
    return transfer({ width, height, data }, [data.buffer]);
  },
};

export type HeicWorker = typeof worker;

expose(worker);
