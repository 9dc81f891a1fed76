/** Machines of a school's own network have no certificate as a rule. */
const NEARBY = /^(localhost|[\d.]+|[\w-]+\.(local|lan|test))(:\d+)?(\/|$)/i;

/** The origin that somebody means who types an address: schools leave out how it begins. Undefined where it is none. */
export function serverOf(typed: string): string | undefined {
  const text = typed.trim();
  if (text === '') return undefined;
  const scheme = NEARBY.test(text) || /^[^/]+:\d/.test(text) ? 'http' : 'https';
  const whole = /^[a-z]+:\/\//i.test(text) ? text : `${scheme}://${text}`;
  if (!/^https?:/i.test(whole) || !URL.canParse(whole)) return undefined;
  return new URL(whole).origin;
}
