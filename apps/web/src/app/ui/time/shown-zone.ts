const MACHINE = Intl.DateTimeFormat().resolvedOptions().timeZone;

/** Set before a screen is shown, so nothing has to follow its changes. */
let chosen: string | null = null;

/** The time zone of this machine (its IANA name). */
export function thisZone(): string {
  return MACHINE;
}

/** The time zone by whose clock this window says times: the account's where one is set, else this machine's. */
export function shownZone(): string {
  return chosen ?? thisZone();
}

/** @param zone its IANA name; `null`, or one that this browser hasn't heard of, for that of each machine */
export function showTimesIn(zone: string | null): void {
  chosen = zone !== null && isKnown(zone) ? zone : null;
}

/** Names are added to zones over the years: a server may know one that a browser doesn't. */
function isKnown(zone: string): boolean {
  try {
    return Boolean(new Intl.DateTimeFormat('en', { timeZone: zone }));
  } catch {
    return false;
  }
}

/** For what is asked: that times are to be said by the same clock as in this window. */
export function inShownZone(): { readonly zone: string } {
  return { zone: shownZone() };
}
