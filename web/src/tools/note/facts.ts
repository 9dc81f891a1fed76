import type { Tool } from '../tool';

export interface NoteKept {
  noteColour: string;
}

export const note: Tool<NoteKept> = {
  name: 'Note',
  key: 'N',
  group: 'Place',
  needs: 'writing',
  kept: { noteColour: '#f0e442' },
  colour: {
    of: ({ noteColour }) => noteColour,
    with: (_, noteColour) => ({ noteColour }),
  },
};
