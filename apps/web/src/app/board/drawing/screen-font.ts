/** The font that ships with the application, for where there is no screen: in a worker. */
const OURS = `'Atkinson Hyperlegible Next Variable', sans-serif`;

/** Asked for once: it is said before anything is drawn, and stays. */
let families: string | undefined;

function ofScreen(): string {
  if (typeof document === 'undefined') return OURS;
  return getComputedStyle(document.documentElement).getPropertyValue('--text').trim() || OURS;
}

/**
 * The font of the screen's own words, as a canvas takes it. Over a thin line that is the machine's own: words on a page
 * that is still coming must not fetch letters ahead of it.
 * @param size in px of the canvas
 */
export function screenFont(weight: 600 | 700, size: number): string {
  families ??= ofScreen();
  return `${weight} ${size}px ${families}`;
}
