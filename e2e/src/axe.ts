import { AxeBuilder } from '@axe-core/playwright';
import type { Someone } from './people.js';
import { expect } from './story.js';

const LEVELS = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'];
/** What may be right in the light and wrong in the dark; all else is the same in both. */
const OF_COLOUR = ['color-contrast', 'link-in-text-block'];

/** What is on screen against WCAG 2.2, levels A and AA, as far as axe-core (Deque) can tell; in the light and in the dark. */
export async function expectNoAxeViolations(who: Someone, what: string): Promise<void> {
  for (const colorScheme of ['light', 'dark'] as const) {
    await who.page.emulateMedia({ colorScheme, reducedMotion: 'reduce' });
    // Colours that are on their way are no one's to see.
    await who.page.evaluate(() =>
      Promise.allSettled(document.getAnimations().map(({ finished }) => finished)),
    );
    const axe = new AxeBuilder({ page: who.page }).options({ resultTypes: ['violations'] });
    const { violations } = await (
      colorScheme === 'light' ? axe.withTags(LEVELS) : axe.withRules(OF_COLOUR)
    ).analyze();
    const told = violations.map(
      ({ id, nodes }) =>
        `${id}: ${nodes.map(({ html, failureSummary }) => `${html.slice(0, 160)} ${failureSummary?.slice(0, 200)}`).join(' | ')}`,
    );
    expect.soft(told, `${what}, ${colorScheme}`).toEqual([]);
  }
  await who.page.emulateMedia({ colorScheme: 'light' });
}
