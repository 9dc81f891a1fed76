import { intlFormatDistance } from 'date-fns';
import { language } from '.';

/** Day before month, and hours to 24: what schools in most places read alike. */
const locale = () => (language() === 'en' ? 'en-GB' : language());

/** Such as *3 days ago*; `time` is in milliseconds since 1970. */
export const timeSince = (time: number): string =>
  intlFormatDistance(time, Date.now(), { locale: locale(), numeric: 'auto' });

/** Such as *08:15*. */
export const timeOfDay = (time: number): string =>
  new Intl.DateTimeFormat(locale(), { timeStyle: 'short' }).format(time);

/** Such as *4 Mar 2027, 08:15*. */
export const dateAndTime = (time: number): string =>
  new Intl.DateTimeFormat(locale(), { dateStyle: 'medium', timeStyle: 'short' }).format(time);

/** Such as *4 Mar 2027*. */
export const dayOf = (time: number): string =>
  new Intl.DateTimeFormat(locale(), { dateStyle: 'medium' }).format(time);

/** Such as *4 Mar 2027, 08:15:09*. */
export const exactTime = (time: number): string =>
  new Intl.DateTimeFormat(locale(), { dateStyle: 'medium', timeStyle: 'medium' }).format(time);

/** The days from Monday to Friday; 5 January 1970 was a Monday. */
export const weekdays = (): string[] =>
  [4, 5, 6, 7, 8].map((day) =>
    new Intl.DateTimeFormat(locale(), { weekday: 'long', timeZone: 'UTC' }).format(day * 86_400_000),
  );
