import { ComponentHarness } from '@angular/cdk/testing';
import { WorkAreaHarness } from '../../board/work-area/work-area.harness';

/** A student's screen of a lesson. */
export class LessonScreenHarness extends ComponentHarness {
  static readonly hostSelector = 'cua-lesson';
  readonly workArea = this.locatorForOptional(WorkAreaHarness);
  private readonly heading = this.locatorForOptional('h1');
  private readonly ownPen = this.locatorForOptional('header .pen');

  /** What fills the screen in place of the board: that the lesson is over, or what keeps it away. */
  async says(): Promise<string | null> {
    const heading = await this.heading();
    return heading ? (await heading.text()).trim() : null;
  }

  /** What the student may do with a pen, in words. */
  async pen(): Promise<string | null> {
    const pen = await this.ownPen();
    return pen ? (await pen.text()).split('.')[0]!.trim() : null;
  }

  async press(name: string): Promise<void> {
    for (const button of await this.locatorForAll('button')()) {
      const called = (await button.getAttribute('aria-label')) ?? (await button.text());
      if (called.trim() === name) return button.click();
    }
    throw new Error(`There is no button “${name}”`);
  }

  async isTalking(): Promise<boolean> {
    return (await this.locatorForOptional('cua-talk-dialog')()) !== null;
  }
}
