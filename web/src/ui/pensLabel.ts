import { t } from '../words';

/** What the button of the pens is called: how they are, and what it will do. */
export const pensLabel = (up: boolean): string =>
  t(up ? 'common.pensUpPutThemDown' : 'common.pensDownLetThemWrite');
