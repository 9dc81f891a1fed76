// Pages whose pictures stand for what teachers share: text, code, pictures, dark colours, a fixed
// header, a video. All words are made up from one list, so that no two pages say the same.

const WORDS = `beam arch truss cable deck load span pier bank river stone steel timber wind weight
push pull bend stretch shear rivet bolt joint frame tower anchor gap model paper straw test fail hold
measure draw compare first second why because across under above between strong thin thick light heavy`.split(
  /\s+/,
);

/** Numbers that look random and are the same in every run. */
export function randomOf(seed) {
  let state = (seed * 2654435761 + 12345) >>> 0;
  return () => {
    state = (state * 1664525 + 1013904223) >>> 0;
    return state / 4294967296;
  };
}

function sentence(random) {
  const count = 6 + Math.floor(random() * 12);
  const words = Array.from({ length: count }, () => WORDS[Math.floor(random() * WORDS.length)]);
  return `${words.join(' ').replace(/^./, (c) => c.toUpperCase())}.`;
}

const paragraph = (random) =>
  `<p>${Array.from({ length: 3 + Math.floor(random() * 4) }, () => sentence(random)).join(' ')}</p>`;

function picture(random) {
  const bars = Array.from({ length: 14 }, () => {
    const [x, y, w, h] = [random() * 560, random() * 220, 20 + random() * 160, 8 + random() * 60];
    return `<rect x="${x}" y="${y}" width="${w}" height="${h}" fill="hsl(${random() * 360} 60% 50%)"/>`;
  });
  return `<svg width="640" height="280" style="background:#dde">${bars.join('')}</svg>`;
}

function code(random) {
  const lines = Array.from({ length: 24 }, () => {
    const name = WORDS[Math.floor(random() * WORDS.length)];
    return `${' '.repeat(2 * Math.floor(random() * 4))}const ${name} = ${name}Of(${Math.floor(random() * 999)}, '${WORDS[Math.floor(random() * WORDS.length)]}');`;
  });
  return `<pre>${lines.join('\n')}</pre>`;
}

const SHEETS = {
  text: 'body{background:#fff;color:#222;font:18px/1.5 serif;max-width:760px;margin:30px auto}',
  code: 'body{background:#fbfbfb;color:#111;font:15px/1.4 sans-serif;margin:20px 60px}pre{font:14px/1.45 monospace;background:#eef}',
  pictures: 'body{background:#fff;color:#222;font:17px/1.5 sans-serif;max-width:900px;margin:20px auto}',
  dark: 'body{background:#14181c;color:#d6dde4;font:17px/1.55 sans-serif;max-width:820px;margin:20px auto}pre{background:#20262c}',
  header:
    'body{background:#fff;color:#222;font:17px/1.5 sans-serif;margin:90px 80px}header{position:fixed;top:0;left:0;right:0;height:64px;background:#245;color:#fff;font-size:26px;padding:14px}',
  video:
    'body{background:#fff;color:#222;font:17px/1.5 sans-serif;margin:20px 80px}canvas{display:block;margin:16px 0}',
};
export const KINDS = Object.keys(SHEETS);

/** A tall page of a kind, as HTML; `video` has a picture that changes all the time. */
export function pageOf(kind, seed, paragraphs = 26) {
  const random = randomOf(seed);
  const parts = Array.from({ length: paragraphs }, (_, i) => {
    const heading = i % 4 === 0 ? `<h2>${sentence(random)}</h2>` : '';
    if (kind === 'code' || (kind === 'dark' && i % 3 === 0))
      return heading + paragraph(random) + code(random);
    if (kind === 'pictures' && i % 2 === 0) return heading + picture(random) + paragraph(random);
    if (kind === 'video' && i % 5 === 1)
      return `${heading}<canvas width="480" height="240"></canvas>${paragraph(random)}`;
    return heading + paragraph(random);
  });
  const head = kind === 'header' ? `<header>${sentence(random)}</header>` : '';
  const play =
    kind === 'video'
      ? `<script>let n=0;window.play=()=>{n++;for(const c of document.querySelectorAll('canvas')){const x=c.getContext('2d');
         for(let i=0;i<60;i++){x.fillStyle='hsl('+((n*37+i*53)%360)+' 70% 50%)';x.fillRect((i*97+n*31)%480,(i*61+n*17)%240,60,40)}}};play()</script>`
      : '';
  return `<!doctype html><meta charset="utf-8"><style>html{scrollbar-width:none}${SHEETS[kind]}</style><body>${head}${parts.join('')}${play}`;
}
