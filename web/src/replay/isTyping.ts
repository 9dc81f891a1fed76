/** Whether keys go into a field or a list that is open; the slider of the time is none of those. */
export function isTyping(target: EventTarget | null): boolean {
  if (target instanceof HTMLInputElement) return target.type !== 'range';
  return target instanceof HTMLSelectElement;
}
