import { fill } from './fill/fillKind.js';
import { formula } from './formula/formulaKind.js';
import { plot } from './plot/plotKind.js';
import { note } from './note/noteKind.js';
import { patch } from './patch/patchKind.js';
import { path } from './path/pathKind.js';
import { picture } from './picture/pictureKind.js';
import { quote } from './quote/quoteKind.js';
import { shape } from './shape/shapeKind.js';
import { stamp } from './stamp/stampKind.js';
import { stroke } from './stroke/strokeKind.js';
import { text } from './text/textKind.js';

/** All kinds of marks; the type `Mark` follows from this table. */
export const KINDS = { stroke, text, shape, path, stamp, note, picture, patch, quote, fill, formula, plot };
