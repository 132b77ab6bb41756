import { ComponentHarness } from '@angular/cdk/testing';
import { StageHarness } from '../stage/stage.harness';

/** The board as somebody works on it: tools, the page, and what is said below it. */
export class WorkAreaHarness extends ComponentHarness {
  static readonly hostSelector = 'cua-work-area';
  readonly stage = this.locatorFor(StageHarness);
  private readonly tools = this.locatorForAll('cua-tool-dock button.kind');
  private readonly fingers = this.locatorForOptional('cua-finger-switch button');
  private readonly notices = this.locatorForAll('cua-work-notices [role=status]');

  /** Takes a tool by its label. */
  async take(label: string): Promise<void> {
    for (const tool of await this.tools())
      if ((await tool.text()).trim() === label) return tool.click();
    throw new Error(`There is no tool “${label}”`);
  }

  /** The tool in hand, by its label. */
  async inHand(): Promise<string | null> {
    for (const tool of await this.tools())
      if ((await tool.getAttribute('aria-pressed')) === 'true') return (await tool.text()).trim();
    return null;
  }

  /** Whether a tool can be taken. */
  async canTake(label: string): Promise<boolean> {
    for (const tool of await this.tools())
      if ((await tool.text()).trim() === label) return !(await tool.getProperty('disabled'));
    return false;
  }

  async press(name: string): Promise<void> {
    for (const button of await this.locatorForAll('button')()) {
      const called = (await button.getAttribute('aria-label')) ?? (await button.text());
      if (called.trim() === name) return button.click();
    }
    throw new Error(`There is no button “${name}”`);
  }

  /** Presses a key with the page in focus, as tools are taken by keys. */
  async key(key: string): Promise<void> {
    const host = await this.locatorFor('cua-stage .host')();
    await host.sendKeys(key);
  }

  /** Whether one finger writes, as the switch has it; `null` where there is none. */
  async fingersWrite(): Promise<boolean | null> {
    const checked = await (await this.fingers())?.getAttribute('aria-checked');
    return checked ? checked === 'true' : null;
  }

  async switchFingers(): Promise<void> {
    await (await this.fingers())!.click();
  }

  /** What stands below the page. */
  async said(): Promise<string[]> {
    return Promise.all((await this.notices()).map(async (one) => (await one.text()).trim()));
  }
}
