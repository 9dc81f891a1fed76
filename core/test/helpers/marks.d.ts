import type {
  LineStyle,
  Page,
  NoteMark,
  PatchMark,
  PathMark,
  ShapeMark,
  StrokeMark,
  TextMark,
  TextStyle,
} from '../../src/index.js';
export declare function aStroke(set?: Partial<StrokeMark>): StrokeMark;
/** The parts of a mark that do not depend on its kind. */
export declare function common(): {
  id: string;
  page: string;
  author: string;
  space: import('../../src/index.js').Space;
  order: string;
  locked: boolean;
  group: string | null;
  alt: string | null;
  createdAt: number;
};
export declare const TEXT_STYLE: TextStyle;
export declare const LINE_STYLE: LineStyle;
export declare function aText(set?: Partial<TextMark>): TextMark;
export declare function aShape(set?: Partial<ShapeMark>): ShapeMark;
export declare function aNote(set?: Partial<NoteMark>): NoteMark;
export declare function patchOver(page: string): PatchMark;
export declare function aPath(set?: Partial<PathMark>): PathMark;
export declare function aPage(set?: Partial<Page>): Page;
