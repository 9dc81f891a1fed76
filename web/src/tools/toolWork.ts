import type { InkStyle, PlacedQuote, Rect } from '@doodla/core';
import type { Store } from '@doodla/core/client';
import type { ComponentType, ReactNode } from 'react';
import type { Surfaces } from '../canvas/surfaces';
import type { Desk } from '../desk/desk';
import type { Gesture, PenPoint } from '../desk/gesture';
import type { PictureActions } from '../desk/pictureActions';
import type { Selection } from '../desk/selection';

/** What tools may need of the page they are used on; each takes the part of it that it needs. */
export interface ToolDesk extends Desk {
  readonly selection: Selection;
  readonly pictureActions: PictureActions;
  readonly surfaces: Surfaces;
  /** The part of the page plane that is in sight. */
  visible(): Rect;
  /** Waits for a colour to be picked from the page. */
  readonly picking: Store<((hex: string, at: { x: number; y: number }) => void) | undefined>;
}

/** The words of a page that can be marked. */
export interface ShownWords {
  between(a: PenPoint, b: PenPoint): PlacedQuote | undefined;
}

/** What a gesture needs to know of where it is made. */
export interface GesturePlace {
  desk: ToolDesk;
  /** Whether the device measures how hard one presses. */
  pressure: boolean;
  /** CSS pixels per page unit. */
  scale: number;
  /** The words of the shown page; none where a pointer goes down beside what is printed. */
  words: ShownWords | undefined;
  /** The pen of the hand that writes at a point, given the one in hand. */
  penAt(at: PenPoint, inHand: InkStyle): InkStyle;
  /** To be called when something changes without the pointer moving. */
  onChange(): void;
}

/** What a tool looks like and does. */
export interface ToolWork {
  readonly icon: ReactNode;
  /** What it does with a pointer that goes down; undefined where it does nothing there. */
  begin(at: PenPoint, place: GesturePlace): Gesture | undefined;
  /** Everything that can be chosen for it beside its colour. */
  readonly Sheet?: ComponentType<{ desk: ToolDesk }>;
}

/** How near a tap has to be to count as on something; CSS pixels. */
export const TOUCH_REACH = 8;
