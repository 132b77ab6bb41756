/**
 * Calls back when nothing else is to be done, after `wait` ms at the latest. Where the browser doesn't say when that is
 * (WebKit), after what is under way.
 *
 * @returns calls it off
 */
export function whenIdle(then: () => void, wait: number): () => void {
  if (typeof requestIdleCallback !== 'function') {
    const timer = setTimeout(then);
    return () => clearTimeout(timer);
  }
  // eslint-disable-next-line compat/compat -- asked for above
  const request = requestIdleCallback(then, { timeout: wait });
  return () => cancelIdleCallback(request);
}
