import type { Surfaces } from '../page/surfaces';
import type { PictureActions } from '../pictures/pictureActions';
import type { Desk } from '../workspace/desk';
import type { Selection } from '../workspace/selection';

/** What tools may need of the page they are used on; each takes the part of it that it needs. */
export interface ToolDesk extends Desk {
  readonly selection: Selection;
  readonly pictureActions: PictureActions;
  readonly surfaces: Surfaces;
}
