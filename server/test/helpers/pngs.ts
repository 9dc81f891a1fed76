import { createCanvas } from '@napi-rs/canvas';

/** A small picture of one colour, as a form that sends it. */
export function pictureForm(colour = '#009e73', type: 'png' | 'jpeg' = 'png'): FormData {
  const canvas = createCanvas(8, 6);
  const ctx = canvas.getContext('2d');
  ctx.fillStyle = colour;
  ctx.fillRect(0, 0, 8, 6);
  const bytes = type === 'png' ? canvas.toBuffer('image/png') : canvas.toBuffer('image/jpeg');
  const form = new FormData();
  form.append('file', new Blob([new Uint8Array(bytes)]), `picture.${type}`);
  return form;
}
