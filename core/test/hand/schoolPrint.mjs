// Letters as they are taught to be printed, of circles and strokes (common practice, no source); drawn by us. Units of 1000 to the
// em, y up, small letters 300 high, ascenders 550, descenders -200.
const round = (cx, cy, rx, ry, from = 0, to = 360) =>
  Array.from({ length: 25 }, (_, i) => {
    const angle = ((from + ((to - from) * i) / 24) * Math.PI) / 180;
    return [cx + rx * Math.cos(angle), cy + ry * Math.sin(angle)];
  });
const line = (...places) => places;
const ball = round(140, 150, 140, 150, 40, 400);
const dot = line([0, 410], [8, 414]);

const LETTERS = {
  a: [ball, line([285, 300], [285, 0])],
  b: [line([0, 550], [0, 0]), round(145, 150, 145, 150, 180, 540)],
  c: [round(150, 150, 150, 150, 45, 315)],
  d: [ball, line([285, 550], [285, 0])],
  e: [[[10, 160], [280, 160], ...round(145, 150, 138, 150, 5, 320)]], // prettier-ignore
  f: [[...round(150, 430, 90, 120, 40, 180), [60, 0]], line([0, 300], [150, 300])], // prettier-ignore
  g: [ball, [[285, 300], [285, -80], ...round(150, -80, 135, 120, 0, -150)]], // prettier-ignore
  h: [line([0, 550], [0, 0]), [...round(110, 170, 110, 130, 180, 0), [220, 0]]],
  i: [line([0, 300], [0, 0]), dot],
  j: [[[0, 300], [0, -90], ...round(-80, -90, 80, 110, 0, -130)], dot], // prettier-ignore
  k: [line([0, 550], [0, 0]), line([190, 300], [0, 130]), line([60, 180], [210, 0])],
  l: [line([0, 550], [0, 0])],
  m: [line([0, 300], [0, 0]), [...round(85, 190, 85, 110, 180, 0), [170, 0]], [...round(255, 190, 85, 110, 180, 0), [340, 0]]], // prettier-ignore
  n: [line([0, 300], [0, 0]), [...round(110, 170, 110, 130, 180, 0), [220, 0]]],
  o: [round(145, 150, 145, 150, 90, 450)],
  p: [line([0, 300], [0, -200]), round(145, 150, 145, 150, 180, 540)],
  q: [ball, line([285, 300], [285, -200])],
  r: [line([0, 300], [0, 0]), round(100, 160, 100, 140, 180, 50)],
  s: [[...round(110, 222, 100, 78, 30, 250), ...round(110, 76, 105, 76, 80, -150)]],
  t: [line([0, 500], [0, 0]), line([-90, 300], [100, 300])],
  u: [[[0, 300], ...round(110, 110, 110, 110, 180, 360), [220, 300]], line([220, 300], [220, 0])], // prettier-ignore
  v: [line([0, 300], [120, 0], [240, 300])],
  w: [line([0, 300], [90, 0], [180, 290], [270, 0], [360, 300])],
  x: [line([0, 300], [220, 0]), line([220, 300], [0, 0])],
  y: [line([0, 300], [120, 10]), line([240, 300], [40, -200])],
  z: [line([0, 300], [220, 300], [0, 0], [230, 0])],
  I: [line([0, 550], [0, 0]), line([-80, 550], [80, 550]), line([-80, 0], [80, 0])],
  J: [[[150, 550], [150, 120], ...round(60, 110, 90, 110, 0, -170)]], // prettier-ignore
  G: [[...round(200, 275, 200, 275, 50, 350), [400, 250], [230, 250]]], // prettier-ignore
  4: [line([190, 550], [0, 180], [290, 180]), line([210, 350], [210, 0])],
  5: [[[30, 550], [10, 310], ...round(120, 170, 140, 165, 130, -150)], line([30, 550], [240, 550])], // prettier-ignore
  6: [[...round(230, 180, 230, 370, 110, 180), ...round(130, 150, 130, 150, 180, 540)]],
  9: [round(130, 400, 130, 150, 0, 360), line([260, 420], [250, 200], [200, 0])],
  '?': [[...round(110, 430, 110, 120, 170, -40), [110, 250], [110, 150]], line([105, 10], [113, 14])], // prettier-ignore
};

/** Width beside which the next letter stands. */
const widthOf = (lines) => Math.max(...lines.flat().map(([x]) => x)) + 90;

export const SCHOOL_PRINT = new Map(
  Object.entries(LETTERS).map(([letter, lines]) => [letter, { width: widthOf(lines), lines }]),
);
