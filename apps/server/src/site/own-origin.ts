import type { IncomingHttpHeaders } from 'node:http';

/**
 * Whether a request comes from our own pages, as far as browsers say. Those of sandboxed frames and of files say
 * `null`, and are not ours.
 */
export function isOwnOrigin({ origin, host }: IncomingHttpHeaders): boolean {
  if (origin === undefined) return true;
  return URL.canParse(origin) && new URL(origin).host === host;
}
