import { createCanvas } from '@napi-rs/canvas';

/** Gives the code under test a `document` that makes real canvases, without a browser. */
export function canvasStandIn(): void {
  const createElement = (name: string) => {
    if (name !== 'canvas') throw new Error(`There is no <${name}> here.`);
    return Object.assign(createCanvas(300, 150), { style: {} });
  };
  Object.assign(globalThis, { document: { createElement } });
}
