import type { Surfaces } from '../canvas/surfaces';
import type { PictureActions } from '../desk/pictureActions';
import type { Desk } from '../desk/desk';
import type { Selection } from '../desk/selection';

/** What tools may need of the page they are used on; each takes the part of it that it needs. */
export interface ToolDesk extends Desk {
  readonly selection: Selection;
  readonly pictureActions: PictureActions;
  readonly surfaces: Surfaces;
}
