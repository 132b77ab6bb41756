import { lasting, remember } from '../../browser/storage';

const KEY = 'cuaderno.way-in';
/** What links are made of. */
const TOKEN = /^[\w-]{1,100}$/;

/** Keeps the link by which a student came, so that the end of one lesson offers the way into the next. */
export function rememberWay(link: string): void {
  if (TOKEN.test(link)) remember(lasting, KEY, link);
}

/** Forgets it: it leads nowhere any more. */
export function forgetWay(link: string): void {
  if (lasting.getItem(KEY) === link) lasting.removeItem(KEY);
}

/** Where a student comes in again: by the link of last time, or by the code where there was none. */
export function wayBack(): string {
  const link = lasting.getItem(KEY);
  return link && TOKEN.test(link) ? `/join/${link}` : '/join';
}
