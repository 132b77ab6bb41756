import { ComponentHarness } from '@angular/cdk/testing';

/** The panel as a tutor uses it. */
export class PeoplePanelHarness extends ComponentHarness {
  static readonly hostSelector = 'cua-people-panel';
  private readonly rows = this.locatorForAll('li:not(.none)');
  private readonly pens = this.locatorForAll('.pen');
  private readonly more = this.locatorForAll('.wishes');
  private readonly all = this.locatorForAll('.all button');

  /** Opens what else can be done with someone, and chooses of it. */
  async choose(index: number, wish: string): Promise<void> {
    await (await this.more())[index]!.click();
    const root = this.documentRootLocatorFactory();
    const items = await root.locatorForAll('.p-menu-item-link')();
    for (const item of items) if ((await item.text()).trim() === wish) return item.click();
    throw new Error(`There is no “${wish}”`);
  }

  async names(): Promise<string[]> {
    return Promise.all(
      (await this.rows()).map(async (row) => (await row.text()).split('\n')[0]!.trim()),
    );
  }

  async writing(): Promise<boolean[]> {
    return Promise.all(
      (await this.pens()).map(async (pen) => (await pen.getAttribute('aria-checked')) === 'true'),
    );
  }

  async touchPen(index: number): Promise<void> {
    await (await this.pens())[index]!.click();
  }

  async takeAllPens(): Promise<void> {
    await (await this.all())[0]!.click();
  }

  async canTakeAllPens(): Promise<boolean> {
    return !(await (await this.all())[0]!.getProperty<boolean>('disabled'));
  }

  async givePensToAll(): Promise<void> {
    await (await this.all())[1]!.click();
  }
}
