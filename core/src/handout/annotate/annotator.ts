import type { PDFDocument, PDFObject, PDFPage } from '@cantoo/pdf-lib';
import { PDFArray, PDFDict, PDFHexString, PDFName, PDFNumber, PDFString } from '@cantoo/pdf-lib';
import type { Matrix } from '../../geometry/matrix.js';
import { applyMatrix, compose, inverse } from '../../geometry/matrix.js';
import { rectFromCorners } from '../../geometry/rect.js';
import type { Mark } from '../../marks/mark.js';
import type { PdfPainter } from '../pdfPainter.js';
import type { StructureTree } from '../structure.js';
import type { AnnotationBody, Entry, UserSpace } from './annotationBody.js';
import { annotationBody } from './annotationBody.js';

/** Printed with the page (ISO 32000-1 table 165). */
const PRINT = 4;

/** What an annotation says of its mark beside what it shows. */
export interface Told {
  author: string;
  /** What it shows, for those who cannot see it. */
  alt: string;
}

/** Puts marks on pages of a PDF as annotations that other programs can change, each with an appearance of its own. */
export class Annotator {
  constructor(
    private readonly doc: PDFDocument,
    private readonly painter: PdfPainter,
    private readonly structure: StructureTree | undefined,
  ) {}

  async add(page: PDFPage, mark: Mark, toUserSpace: Matrix, { author, alt }: Told): Promise<void> {
    const { context } = this.doc;
    const space: UserSpace = { matrix: toUserSpace, scale: Math.hypot(toUserSpace[0], toUserSpace[1]) };
    const body = annotationBody(mark, space);
    const { rect, look } = await this.appearance(mark, body, toUserSpace);
    const made = dateOf(mark.createdAt);
    const dict = context.obj({
      Type: 'Annot',
      Subtype: body.subtype,
      Rect: [...rect],
      Contents: PDFHexString.fromText(body.contents || alt),
      T: PDFHexString.fromText(author),
      NM: PDFString.of(mark.id),
      CreationDate: made,
      M: made,
      F: PRINT,
      P: page.ref,
      AP: { N: look },
    });
    for (const [key, value] of Object.entries(body.entries)) dict.set(PDFName.of(key), this.object(value));
    const ref = context.register(dict);
    page.node.addAnnot(ref);
    this.structure?.add(page, ref, dict, { type: 'Annot', words: alt });
  }

  /** The mark as it is drawn, and the upright box round it: readers fit the one onto the other (algorithm 8.1). */
  private async appearance(mark: Mark, { box, turn }: AnnotationBody, toUserSpace: Matrix) {
    const straight = turn ? compose(inverse(turn), toUserSpace) : toUserSpace;
    const corners = [
      ...applyMatrix(toUserSpace, box.x, box.y),
      ...applyMatrix(toUserSpace, box.x + box.width, box.y + box.height),
    ] as [number, number, number, number];
    const plain = edgesOf(corners);
    const matrix = turn && compose(compose(inverse(toUserSpace), turn), toUserSpace);
    const look = await this.painter.form([mark], { toUserSpace: straight, box: plain, matrix });
    return { look, rect: matrix ? edgesOf(cornersOf(plain, matrix)) : plain };
  }

  private object(value: Entry): PDFObject {
    const { context } = this.doc;
    if (typeof value === 'number') return PDFNumber.of(rounded(value));
    if (typeof value === 'string') return PDFString.of(value);
    if (value instanceof PDFName) return value;
    if (isList(value)) {
      const array = PDFArray.withContext(context);
      for (const each of value) array.push(this.object(each));
      return array;
    }
    const dict = PDFDict.withContext(context);
    for (const [key, each] of Object.entries(value)) dict.set(PDFName.of(key), this.object(each));
    return dict;
  }
}

function isList(value: Entry): value is readonly Entry[] {
  return Array.isArray(value);
}

type Edges = readonly [number, number, number, number];

function cornersOf([left, bottom, right, top]: Edges, matrix: Matrix): number[] {
  return [
    [left, bottom],
    [right, bottom],
    [right, top],
    [left, top],
  ].flatMap(([x, y]) => applyMatrix(matrix, x!, y!));
}

/** Left, bottom, right, top of what holds all points of a flat list. */
function edgesOf(points: readonly number[]): Edges {
  const xs = points.filter((_, i) => i % 2 === 0);
  const ys = points.filter((_, i) => i % 2 === 1);
  const { x, y, width, height } = rectFromCorners(
    Math.min(...xs),
    Math.min(...ys),
    Math.max(...xs),
    Math.max(...ys),
  );
  return [x, y, x + width, y + height].map(rounded) as unknown as Edges;
}

/** To a thousandth of a point, less than the eye or another program can tell. */
function rounded(value: number): number {
  return Math.round(value * 1000) / 1000;
}

/** A date (§7.9.4), in UTC. */
export function dateOf(ms: number): PDFString {
  return PDFString.fromDate(new Date(ms));
}
