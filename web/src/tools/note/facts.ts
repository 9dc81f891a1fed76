import type { Tool } from '../tool';
import { t } from '../../words';

export interface NoteKept {
  noteColour: string;
}

export const note: Tool<NoteKept> = {
  name: t('tools.note'),
  key: 'N',
  group: 'Place',
  needs: 'writing',
  least: 'words',
  kept: { noteColour: '#f0e442' },
  colour: {
    of: ({ noteColour }) => noteColour,
    with: (_, noteColour) => ({ noteColour }),
  },
};
