import { imageSize } from 'image-size';
import { t } from '../words';

/** A picture ready to be sent: turned upright, no larger than is of use, PNG or JPEG. */
export interface PreparedPicture {
  blob: Blob;
  /** Size to be shown at, page units. */
  width: number;
  height: number;
  /** Whether it was made smaller. */
  scaled: boolean;
}

/** Longest side that is kept; enough for a wide display. */
const MAX_SIDE = 2400;
/** Pictures with more pixels than this are not even decoded: each takes four bytes of memory. */
const MAX_PIXELS = 80_000_000;
/** A picture says its size within so many bytes, previews that cameras put before it included. */
const HEAD_BYTES = 512_000;
const JPEG_QUALITY = 0.9;

const TOO_LARGE = t('pictures.thisPictureIsTooLarge');

/** A file that cannot be shown. The message is fit to be shown. */
export class PictureError extends Error {
  override name = 'PictureError';
}

/**
 * Decodes a picture file, applies the orientation of its EXIF data, and draws it anew. SVG is drawn
 * as a picture too, so that nothing in it can run. Throws PictureError.
 */
export async function preparePicture(file: Blob): Promise<PreparedPicture> {
  const isSvg = file.type === 'image/svg+xml';
  if (!isSvg) await refuseHuge(file);
  const image = isSvg ? await decodeSvg(file) : await decode(file);
  const { width: fullWidth, height: fullHeight } = image;
  if (fullWidth * fullHeight > MAX_PIXELS) throw new PictureError(TOO_LARGE);
  const factor = Math.min(1, MAX_SIDE / Math.max(fullWidth, fullHeight));
  const [width, height] = [
    Math.max(1, Math.round(fullWidth * factor)),
    Math.max(1, Math.round(fullHeight * factor)),
  ];
  const canvas = new OffscreenCanvas(width, height);
  const ctx = canvas.getContext('2d')!;
  ctx.drawImage(image, 0, 0, width, height);
  const jpeg = /^image\/(jpeg|hei[cf])$/.test(file.type);
  const blob = await canvas.convertToBlob(
    jpeg ? { type: 'image/jpeg', quality: JPEG_QUALITY } : { type: 'image/png' },
  );
  if (image instanceof ImageBitmap) image.close();
  const shown =
    image instanceof ImageBitmap
      ? { width, height }
      : { width: image.naturalWidth || width, height: image.naturalHeight || height };
  return { blob, ...shown, scaled: factor < 1 };
}

/** Throws PictureError where a picture says of itself that it is too large; unknown ones are left to the decoder. */
async function refuseHuge(file: Blob): Promise<void> {
  const head = new Uint8Array(await file.slice(0, HEAD_BYTES).arrayBuffer());
  let size: { width: number; height: number };
  try {
    size = imageSize(head);
  } catch {
    // A file that cannot be measured is judged when it is decoded.
    return;
  }
  if (size.width * size.height > MAX_PIXELS) throw new PictureError(TOO_LARGE);
}

async function decode(file: Blob): Promise<ImageBitmap> {
  try {
    return await createImageBitmap(file, { imageOrientation: 'from-image' });
  } catch {
    const { decodeHeic, isHeic } = await import('./heic');
    // What cannot be decoded is told below, like any other file.
    const decoded = (await isHeic(file)) ? await decodeHeic(file).catch(() => undefined) : undefined;
    if (decoded) return decoded;
    throw new PictureError(t('pictures.thisFileIsNotA'));
  }
}

/** An SVG without a size of its own gets this one; pixels. */
const SVG_SIDE = 1200;

async function decodeSvg(file: Blob): Promise<HTMLImageElement> {
  const url = URL.createObjectURL(file);
  const image = new Image();
  image.src = url;
  try {
    await image.decode();
  } catch {
    throw new PictureError(t('pictures.thisSvgCannotBeShown'));
  } finally {
    URL.revokeObjectURL(url);
  }
  const longest = Math.max(image.naturalWidth, image.naturalHeight) || SVG_SIDE;
  image.width = Math.round(((image.naturalWidth || SVG_SIDE) * SVG_SIDE) / longest);
  image.height = Math.round(((image.naturalHeight || SVG_SIDE) * SVG_SIDE) / longest);
  return image;
}
