import type { Response } from 'express';
import type { PictureType } from './picture.entity.js';

interface Picture {
  path: string;
  type: PictureType;
  /** Whether it is another picture under the same address some day; otherwise a browser keeps it for good. */
  changes?: boolean;
}

/** Sends a stored picture, in which nothing runs. */
export function sendPicture(response: Response, { path, type, changes = false }: Picture): void {
  response.sendFile(path, {
    headers: { 'Content-Type': `image/${type}`, 'Content-Security-Policy': 'sandbox' },
    dotfiles: 'allow',
    ...(!changes && { immutable: true, maxAge: '1y' }),
  });
}
