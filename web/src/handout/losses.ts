import type { Loss } from '@doodla/core/handout';
import { t } from '../words';

/** What a handout lacks of its originals, in words. */
export const LOSSES: Record<Loss, string> = {
  tags: t('handout.structureForScreenReadersIt'),
  attachments: t('handout.filesAttachedToADocument'),
  fields: t('handout.fieldsToFillInWhere'),
  signature: t('handout.aSignatureItHoldsFor'),
  restrictions: t('handout.whatTheOwnerOfA'),
  scripts: t('handout.programsThatWouldRunWhen'),
  everything: t('handout.theWordsOfADocument'),
};
