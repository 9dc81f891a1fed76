import { strToU8, zipSync } from 'fflate';
import { describe, expect, it } from 'vitest';
import { inkMlFile, readDrawing, UnreadableFile } from '../src/formats/index.js';
import { aPage, aStroke } from './helpers/marks.js';

const ROOM = { width: 960, height: 540 };
const EMU = 9525;

/** Slides of 13.333 by 7.5 inches, as programs for slides write them: ink parts that slides refer to. */
function slides(inks: readonly (string | undefined)[]): Uint8Array {
  const files: Record<string, Uint8Array> = {
    'ppt/presentation.xml': strToU8('<p:presentation><p:sldSz cx="12192000" cy="6858000"/></p:presentation>'),
  };
  for (const [i, ink] of inks.entries()) {
    const part =
      '<p:contentPart r:id="rId7"><p14:xfrm><a:off x="2540000" y="1270000"/><a:ext cx="1270000" cy="1270000"/></p14:xfrm></p:contentPart>';
    files[`ppt/slides/slide${i + 1}.xml`] = strToU8(`<p:sld><p:spTree>${ink ? part : ''}</p:spTree></p:sld>`);
    if (!ink) continue;
    files[`ppt/slides/_rels/slide${i + 1}.xml.rels`] = strToU8(
      `<Relationships><Relationship Id="rId7" Type="customXml" Target="../ink/ink${i + 1}.xml"/></Relationships>`,
    );
    files[`ppt/ink/ink${i + 1}.xml`] = strToU8(ink);
  }
  return zipSync(files);
}

const INK = `<inkml:ink xmlns:inkml="http://www.w3.org/2003/InkML"><inkml:definitions>
  <inkml:context xml:id="ctx0"><inkml:inkSource xml:id="inkSrc0"><inkml:traceFormat>
    <inkml:channel name="X" type="integer" units="cm"/><inkml:channel name="Y" type="integer" units="cm"/>
  </inkml:traceFormat></inkml:inkSource></inkml:context>
  <inkml:brush xml:id="br0"><inkml:brushProperty name="width" value="0.1" units="cm"/>
    <inkml:brushProperty name="color" value="#004F8B"/></inkml:brush></inkml:definitions>
  <inkml:trace contextRef="#ctx0" brushRef="#br0">10 10,20 20,30 10</inkml:trace></inkml:ink>`;

describe('a file of others', () => {
  it('of slides gives the ink of each, where it lies on it', () => {
    const { pages } = readDrawing(slides([undefined, INK]), ROOM);
    expect(pages.map((page) => page.length)).toEqual([0, 1]);
    const { body } = pages[1]![0]!;
    const points = 'points' in body ? body.points : [];
    const xs = points.filter((_, i) => i % 4 === 0);
    const scale = 960 / (12_192_000 / EMU);
    const half = 'style' in body && 'width' in body.style ? body.style.width / 2 : 0;
    expect(half).toBeCloseTo((0.1 * 96) / 2.54 / 2, 1);
    expect(Math.min(...xs) - half).toBeCloseTo((2_540_000 / EMU) * scale, 0);
    expect(Math.max(...xs) + half).toBeCloseTo(((2_540_000 + 1_270_000) / EMU) * scale, 0);
    expect(body).toMatchObject({ style: { colour: '#004f8b' } });
  });

  it('is known by what is in it', () => {
    const ink = inkMlFile([{ page: aPage(), marks: [aStroke()] }], { title: 'x' });
    expect(readDrawing(ink, ROOM).pages[0]).toMatchObject([{ body: { kind: 'stroke' } }]);
    const svg = strToU8('<svg xmlns="http://www.w3.org/2000/svg"><rect width="9" height="9"/><image/></svg>');
    expect(readDrawing(svg, ROOM)).toMatchObject({ pages: [[{ body: { kind: 'path' } }]], left: 1 });
  });

  it('that is neither is said to be none', () => {
    const none = [
      strToU8('words'),
      new Uint8Array(),
      zipSync({ 'a.txt': strToU8('a') }),
      strToU8('PK broken'),
      slides([INK]).slice(0, 300),
    ];
    for (const bytes of none) expect(() => readDrawing(bytes, ROOM)).toThrow(UnreadableFile);
  });
});
