import { format, isToday } from 'date-fns';

/** “14:10”, with its day unless it is today. */
export const clockWords = (iso: string): string =>
  format(new Date(iso), isToday(new Date(iso)) ? 'HH:mm' : 'd MMM HH:mm');

/** “on the printer since 14:10, ready about 15:20”. @param ready null where unknown */
export const sinceWords = (since: string, ready: string | null): string =>
  `on the printer since ${clockWords(since)}${ready ? `, ready about ${clockWords(ready)}` : ''}`;
