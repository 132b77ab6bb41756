/* Dates of a PDF (ISO 32000-1, 7.9.4): `D:YYYYMMDDHHmmSSOHH'mm'`, of which all after the year may be left out. */

const DATE = /^(?:D:)?(\d{4})(\d\d)?(\d\d)?(\d\d)?(\d\d)?(\d\d)?(?:Z|([+-])(\d\d)'?(\d\d)?'?)?/;

const MONTHS = [
  ...['January', 'February', 'March', 'April', 'May', 'June', 'July', 'August', 'September'],
  ...['October', 'November', 'December'],
];

/** As it was on the clock of who wrote it, in words; empty where it is no day. */
export function whenOf(date: string): string {
  const m = DATE.exec(date);
  const month = m?.[2] && MONTHS[Number(m[2]) - 1];
  if (!m?.[3] || !month) return '';
  const day = `${Number(m[3])} ${month} ${m[1]}`;
  return m[5] ? `${day}, ${m[4]}:${m[5]}` : day;
}

/** In ms since 1970, in universal time where it names no other; `null` where it is none. */
export function timeOf(date: string): number | null {
  const m = DATE.exec(date);
  if (!m) return null;
  const [year, month = 1, day = 1, hour = 0, minute = 0, second = 0] = m
    .slice(1, 7)
    .map((part) => (part === undefined ? undefined : Number(part))) as [number, ...number[]];
  const away = (Number(m[8] ?? 0) * 60 + Number(m[9] ?? 0)) * (m[7] === '-' ? -1 : 1);
  const at = Date.UTC(year, month - 1, day, hour, minute - away, second);
  return Number.isFinite(at) ? at : null;
}
