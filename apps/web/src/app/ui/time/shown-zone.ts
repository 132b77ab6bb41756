/** Set before a screen is shown, so nothing has to follow its changes. */
let chosen: string | null = null;

/** The time zone of this machine (its IANA name). */
export function thisZone(): string {
  return Intl.DateTimeFormat().resolvedOptions().timeZone;
}

/** The time zone by whose clock this window says times: the account's where one is set, else this machine's. */
export function shownZone(): string {
  return chosen ?? thisZone();
}

/** @param zone its IANA name; `null` for that of each machine */
export function showTimesIn(zone: string | null): void {
  chosen = zone;
}

/** For what is asked: that times are to be said by the same clock as in this window. */
export function inShownZone(): { readonly zone: string } {
  return { zone: shownZone() };
}
