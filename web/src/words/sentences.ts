import type { ProblemReply, RefusalCode } from '@doodla/core';
import i18next from 'i18next';
import { t } from '.';

/** What the server says, in the language that is spoken; as it came where that has no words for it. */
export function sentenceOf({ code, message, values }: ProblemReply): string {
  return i18next.t(`server.${code}`, { ...values, defaultValue: message });
}

/** Why an operation is refused. */
export const sayRefusal = (why: RefusalCode): string => t(`server.${why}`);
