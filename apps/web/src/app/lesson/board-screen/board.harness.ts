import { ComponentHarness } from '@angular/cdk/testing';
import { WorkAreaHarness } from '../../board/work-area/work-area.harness';

/** The tutor's screen of a board. */
export class BoardScreenHarness extends ComponentHarness {
  static readonly hostSelector = 'cua-board';
  readonly workArea = this.locatorForOptional(WorkAreaHarness);
  private readonly name = this.locatorFor('cua-board-name .title');
  private readonly buttons = this.locatorForAll('header button, header a');

  async title(): Promise<string> {
    return (await this.name()).text();
  }

  /** What can be pressed at the top, by its name. */
  async offers(): Promise<string[]> {
    return Promise.all(
      (await this.buttons()).map(async (one) =>
        ((await one.getAttribute('aria-label')) ?? (await one.text())).trim(),
      ),
    );
  }

  async press(name: string): Promise<void> {
    const at = (await this.offers()).indexOf(name);
    if (at < 0) throw new Error(`There is no “${name}”`);
    return (await this.buttons())[at]!.click();
  }

  /** Shift+P, anywhere on the screen. */
  async takePensByKey(): Promise<void> {
    const host = await this.locatorFor('cua-stage .host')();
    await host.sendKeys({ shift: true }, 'P');
  }

  /** Whether the dialog is there in which the lesson is closed. */
  async asksHowToLeave(): Promise<boolean> {
    return (await this.locatorForOptional('cua-leave-dialog')()) !== null;
  }

  async problem(): Promise<string | null> {
    const told = await this.locatorForOptional('[role=alert]')();
    return told ? (await told.text()).trim() : null;
  }
}
