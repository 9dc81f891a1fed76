import type { PartLook, TextStyle } from '@doodla/core';
import { faceOf, LINE_HEIGHT } from '@doodla/core';
import { Plugin } from 'prosemirror-state';
import { Decoration, DecorationSet } from 'prosemirror-view';
import { cssFont } from '../canvas/cssFont';
import { needFace } from '../canvas/faces';
import { lookOf } from './letters';

/**
 * Draws letters as the page will: each as high as itself, so that a line is as high as what is largest in it.
 * Lines without letters are as high as the text's own size.
 */
export function lettersDrawn(style: () => TextStyle): Plugin {
  return new Plugin({
    props: {
      decorations({ doc }) {
        const drawn: Decoration[] = [];
        doc.descendants((node, place) => {
          const end = place + node.nodeSize;
          if (node.isText) {
            const own = ownStyle(style(), lookOf(node.marks));
            // Until it can be fetched, the letters are shown in the nearest font there is.
            needFace(faceOf(own)).catch(() => undefined);
            drawn.push(Decoration.inline(place, end, { style: cssOf(own) }));
          } else if (node.content.size === 0) {
            drawn.push(Decoration.node(place, end, { style: `line-height: ${LINE_HEIGHT}` }));
          }
        });
        return DecorationSet.create(doc, drawn);
      },
    },
  });
}

function ownStyle(style: TextStyle, { scale = 1, ...look }: PartLook): TextStyle {
  return { ...style, ...look, size: style.size * scale };
}

function cssOf(style: TextStyle): string {
  return [
    `font: ${cssFont(faceOf(style), style.size)}`,
    `line-height: ${LINE_HEIGHT}`,
    `color: ${style.colour}`,
    `text-decoration: ${style.underline ? 'underline' : 'none'}`,
  ].join('; ');
}
