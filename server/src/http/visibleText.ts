/** Characters that cannot be seen, or turn the direction of what follows (Unicode TR36 §2.10, TR9 §3.3). */
const UNSEEN = /[\p{Default_Ignorable_Code_Point}\p{Bidi_Control}\p{Cc}\uFFF9-\uFFFB]/gu;

/** A name or title as it is seen: composed, without characters that show nothing, spaces by one each. */
export function visibleText(value: unknown): unknown {
  if (typeof value !== 'string') return value;
  return value.normalize('NFC').replace(/\s/g, ' ').replace(UNSEEN, '').replace(/ +/g, ' ').trim();
}
