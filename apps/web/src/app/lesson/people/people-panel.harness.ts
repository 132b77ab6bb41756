import { ComponentHarness } from '@angular/cdk/testing';

/** The panel as a tutor uses it. */
export class PeoplePanelHarness extends ComponentHarness {
  static readonly hostSelector = 'cua-people-panel';
  private readonly rows = this.locatorForAll('ul:not(.others) .name bdi');
  private readonly steps = this.locatorForAll('.steps');
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
    return Promise.all((await this.rows()).map(async (row) => (await row.text()).trim()));
  }

  /** Who teaches or watches besides the one at this window, with what they are. */
  async others(): Promise<string[]> {
    const [names, roles, places] = await Promise.all(
      ['bdi', '.role', '.place'].map(async (part) =>
        Promise.all((await this.locatorForAll(`.others ${part}`)()).map((one) => one.text())),
      ),
    );
    return names!.map((name, i) => `${name} ${roles![i]} ${places![i]}`);
  }

  /** The step of trust that is pressed, of each student. */
  async pens(): Promise<string[]> {
    return Promise.all(
      (await this.locatorForAll('.step.on')()).map(async (step) => (await step.text()).trim()),
    );
  }

  /** Presses a step of trust for one student. */
  async givePen(index: number, label: string): Promise<void> {
    const each = (await this.steps()).length;
    if (index >= each) throw new Error('There is no such student');
    const labels = await this.locatorForAll('.step')();
    for (const step of labels.slice(index * 3, index * 3 + 3))
      if ((await step.text()).trim() === label) return step.click();
    throw new Error(`There is no “${label}”`);
  }

  async whereAll(): Promise<string[]> {
    return Promise.all((await this.locatorForAll('.where')()).map((where) => where.text()));
  }

  async lineOf(index: number): Promise<string | null> {
    return (await this.locatorForAll('.line')())[index]!.getAttribute('aria-label');
  }

  /** Hands and signals, as they are counted. */
  async counts(): Promise<string[]> {
    return Promise.all(
      (await this.locatorForAll('.count')()).map(async (count) => (await count.text()).trim()),
    );
  }

  async press(label: string): Promise<void> {
    await (await this.locatorFor(`button[aria-label="${label}"]`)()).click();
  }

  /** What was said for all, and holds for who comes late. */
  async forAll(): Promise<string | null> {
    for (const button of await this.all())
      if ((await button.getAttribute('aria-pressed')) === 'true')
        return (await button.text()).trim();
    return null;
  }

  async givePensToAll(label: 'Writing' | 'Hands on' = 'Writing'): Promise<void> {
    await (await this.all())[label === 'Writing' ? 0 : 1]!.click();
  }
}
