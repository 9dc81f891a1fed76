import type { Loss } from '@doodla/core/handout';

/** What a handout lacks of its originals, in words. */
export const LOSSES: Record<Loss, string> = {
  tags: 'Structure for screen readers. It is kept where all pages of a document are handed out.',
  attachments: 'Files attached to a document. They are kept where all its pages are handed out.',
  fields: 'Fields to fill in, where something is written over them. What they say is part of the page.',
  signature: 'A signature: it holds for the original alone.',
  restrictions:
    'What the owner of a document does not allow, such as copying. Please make sure that you may hand it out.',
  scripts: 'Programs that would run when a document is opened.',
  everything: 'The words of a document that could only be put in as pictures.',
};
