import { ChangeDetectionStrategy, Component, signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import type { ComponentFixture } from '@angular/core/testing';
import { Confirm } from './confirm';

@Component({
  imports: [Confirm],
  template: `
    <div>
      @if (asking()) {
        <cua-confirm
          does="Withdraw"
          [busy]="busy()"
          (kept)="asking.set(false)"
          (confirmed)="done.set(true)"
        >
          It opens nothing from then on.
        </cua-confirm>
      } @else {
        <button id="asker" (click)="asking.set(true)">Withdraw…</button>
      }
    </div>
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
class Host {
  readonly asking = signal(false);
  readonly busy = signal(false);
  readonly done = signal(false);
}

describe('asking once more', () => {
  let fixture: ComponentFixture<Host>;
  let element: HTMLElement;

  const drawn = (): Promise<void> =>
    new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(() => done())));
  const button = (words: string): HTMLButtonElement =>
    [...element.querySelectorAll('button')].find((one) => one.textContent.trim() === words)!;

  beforeEach(async () => {
    fixture = TestBed.createComponent(Host);
    element = fixture.nativeElement as HTMLElement;
    document.body.append(element);
    await fixture.whenStable();
    button('Withdraw…').focus();
    button('Withdraw…').click();
    await fixture.whenStable();
  });
  afterEach(() => element.remove());

  it('says what happens, with the focus on what changes nothing', () => {
    expect(element.querySelector('cua-confirm')?.textContent).toContain('It opens nothing');
    expect(document.activeElement).toBe(button('Keep it'));
  });

  it('does it, unless it is being done', async () => {
    fixture.componentInstance.busy.set(true);
    await fixture.whenStable();
    button('Withdraw').click();
    expect(fixture.componentInstance.done()).toBeFalse();
    fixture.componentInstance.busy.set(false);
    await fixture.whenStable();
    button('Withdraw').click();
    expect(fixture.componentInstance.done()).toBeTrue();
  });

  it('leaves all as it is by Escape, which closes nothing else, and gives the focus back', async () => {
    let heard = false;
    const listen = (): void => void (heard = true);
    document.addEventListener('keydown', listen, { once: true });
    button('Keep it').dispatchEvent(new KeyboardEvent('keydown', { key: 'Escape', bubbles: true }));
    document.removeEventListener('keydown', listen);
    await fixture.whenStable();
    await drawn();
    expect(heard).toBeFalse();
    expect(fixture.componentInstance.done()).toBeFalse();
    expect(document.activeElement).toBe(button('Withdraw…'));
  });
});
