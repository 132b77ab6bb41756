import { ComponentHarness } from '@angular/cdk/testing';

/** The tutor's screen of a record. */
export class RecordScreenHarness extends ComponentHarness {
  static readonly hostSelector = 'cua-record';
  private readonly views = this.locatorForAll('cua-record-bar label');

  /** What a record can be looked at as, as far as it can now. */
  async offers(): Promise<string[]> {
    return Promise.all((await this.views()).map(async (one) => (await one.text()).trim()));
  }

  async look(label: string): Promise<void> {
    const at = (await this.offers()).indexOf(label);
    if (at < 0) throw new Error(`A record can’t be looked at as “${label}”`);
    return (await this.locatorForAll('cua-record-bar input')())[at]!.click();
  }

  async has(selector: string): Promise<boolean> {
    return (await this.locatorForOptional(selector)()) !== null;
  }

  async text(): Promise<string> {
    return (await (await this.host()).text()).replace(/\s+/g, ' ').trim();
  }
}
