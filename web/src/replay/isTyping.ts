/** Whether keys go into a text field; the slider of the time is none. */
export function isInText(target: EventTarget | null): boolean {
  return target instanceof HTMLInputElement && target.type !== 'range';
}

/** Whether keys go into a field or a list. */
export function isTyping(target: EventTarget | null): boolean {
  return isInText(target) || target instanceof HTMLSelectElement;
}
