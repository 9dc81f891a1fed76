/** Joins class names, leaving out what is not wanted. */
export function classes(...names: (string | false | undefined)[]): string {
  return names.filter(Boolean).join(' ');
}
