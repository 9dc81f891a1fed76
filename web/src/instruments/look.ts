/** Instruments are see-through, so that what they lie on stays readable. */
export const LOOK = {
  body: 'rgb(233 240 232 / 0.82)',
  edge: '#23483b',
  ink: '#16241d',
  reading: '#8a5a00',
  metal: '#3f4f57',
} as const;

/** Letters of a scale, page units. */
export const LETTERS = 11;

/** Ink within this of an edge runs along it, so nothing of the instrument is taken hold of there; CSS pixels. */
export const EDGE_BAND = 9;
