/** A picture of the story as SVG: the bridge as it was, under load, and as it is now. */
function picture(kind: 'old' | 'bent' | 'new'): string {
  const sag = kind === 'bent' ? 34 : 0;
  const truss =
    kind === 'new' ? Array.from({ length: 9 }, (_, i) => `M${90 + i * 60} 150l30 -44l30 44`).join('') : '';
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 720 260" width="720" height="260">
<rect width="720" height="260" fill="#eaf3f8"/><rect y="200" width="720" height="60" fill="#a8d4ea"/>
<rect x="40" y="150" width="50" height="90" fill="#c9b79a"/><rect x="630" y="150" width="50" height="90" fill="#c9b79a"/>
<path d="M60 146Q360 ${146 + 2 * sag} 660 146" fill="none" stroke="#44606c" stroke-width="14"/>
<path d="${truss}M90 106H630" fill="none" stroke="#44606c" stroke-width="${kind === 'new' ? 7 : 0}"/>
${kind === 'bent' ? '<rect x="310" y="92" width="44" height="70" fill="#a3281b"/><rect x="366" y="92" width="44" height="70" fill="#a3281b"/>' : ''}
</svg>`;
  return `data:image/svg+xml;base64,${Buffer.from(svg).toString('base64')}`;
}

const PARTS: [string, string[], 'old' | 'bent' | 'new'][] = [
  [
    'A bridge for walkers',
    [
      'For ninety years the footbridge at Quillmere Mill carried people over the Sallow Brook: children on their way to school, the post, and once, by mistake, a cow. Its deck was made of long oak planks that lay on two stone piers. Nothing held the planks up between the piers but their own stiffness.',
      'A plank on two supports is called a beam. When somebody stands in the middle of it, it bends. Its upper side is pushed together and its under side is pulled apart. Wood can bear being pushed and pulled, but only up to a point, and that point comes sooner when the wood is wet.',
    ],
    'old',
  ],
  [
    'The wet spring',
    [
      'In the spring of the flood the water rose above the lower rail. When it fell again, the planks had drunk so much that they were a third heavier than before. Nobody noticed at first. Then the handrail was seen to be no longer straight.',
      'The carpenters stretched a string from pier to pier and measured with a rule how far the deck hung below it. They found 34 millimetres in the middle. A week later it was 41. They closed the bridge and put barrels of water on it, one after the other, to find out how much it could still carry. With the second barrel the deck creaked so loudly that they stopped.',
    ],
    'bent',
  ],
  [
    'Triangles',
    [
      'The new bridge has a deck that is no thicker than the old one. But above it runs a row of triangles made of short timbers, a truss. A square frame can be pushed over until it is flat; a triangle cannot, unless one of its sides breaks. In a truss no timber has to bend. Each one is only pushed or only pulled, and so each one can be thin.',
      'When the ninth barrel stood on the new deck, the carpenters measured again. It had moved by less than the width of a thumb. The barrels were emptied into the brook, and the first to walk across was the girl who had noticed the handrail.',
    ],
    'new',
  ],
];

/** The story of a footbridge as one web page that needs nothing from anywhere. */
export function articleHtml(): string {
  const parts = PARTS.map(
    ([title, paragraphs, kind]) =>
      `<h2>${title}</h2>${paragraphs.map((text) => `<p>${text}</p>`).join('')}<img src="${picture(kind)}" alt="${title}">`,
  );
  return `<!doctype html>
<html lang="en"><head><meta charset="utf-8"><title>The footbridge at Quillmere Mill</title>
<style>body{margin:0 auto;max-width:760px;padding:40px 20px 80px;background:#fffdf6;color:#1c241f;font:20px/1.6 Georgia,"Noto Serif",serif}h1,h2{line-height:1.2}h2{margin-top:2em}img{display:block;width:100%;margin:1.5em 0;border-radius:8px}</style>
</head><body><h1>The footbridge at Quillmere Mill</h1>${parts.join('\n')}</body></html>
`;
}
