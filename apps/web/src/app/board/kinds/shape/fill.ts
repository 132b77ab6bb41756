/** How much of the ink is in what fills a shape of it. */
const FILL = 0.16;

/** What a shape of this colour is filled with: so light that ink can be read on it. */
export function fillOf(colour: string): string {
  const mixed = [1, 3, 5].map((i) => {
    const part = parseInt(colour.slice(i, i + 2), 16);
    return Math.round(255 + (part - 255) * FILL)
      .toString(16)
      .padStart(2, '0');
  });
  return `#${mixed.join('')}`;
}
