export type Device = 'phone' | 'tablet' | 'computer';

/**
 * What kind of machine a browser says that it runs on: nothing more of it is kept. Phones say `Mobile` (MDN, "Browser
 * detection using the user agent"); tablets that call themselves computers count as such.
 */
export function deviceOf(userAgent: string | undefined): Device {
  const says = userAgent ?? '';
  if (/iPad|Tablet|Android(?!.*Mobile)/i.test(says)) return 'tablet';
  return /Mobi/i.test(says) ? 'phone' : 'computer';
}
