import { ChangeDetectionStrategy, Component, signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import type { ComponentFixture } from '@angular/core/testing';
import { DIALOG } from './dialog';

@Component({
  imports: [DIALOG],
  template: `
    <button id="opener" (click)="open.set(true)">Rename…</button>
    @if (open()) {
      <cua-dialog header="Rename the board" (closed)="open.set(false)">
        @if (loaded()) {
          <input id="first" />
          <input id="second" />
        }
        <ng-template cuaDialogFooter><button id="answer">Rename</button></ng-template>
      </cua-dialog>
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
class Host {
  readonly open = signal(false);
  readonly loaded = signal(true);
}

describe('a dialog', () => {
  let fixture: ComponentFixture<Host>;
  let element: HTMLElement;

  const at = (id: string): HTMLElement => document.getElementById(id)!;
  const frame = (): Promise<void> => new Promise((done) => requestAnimationFrame(() => done()));
  const until = async (holds: () => boolean): Promise<void> => {
    while (!holds()) await frame();
  };
  /** It has come in: nothing of it moves any more. */
  const isIn = (): boolean => document.getAnimations().length === 0;

  beforeEach(() => {
    fixture = TestBed.createComponent(Host);
    element = fixture.nativeElement as HTMLElement;
    document.body.append(element);
  });
  afterEach(() => element.remove());

  async function press(): Promise<void> {
    await fixture.whenStable();
    at('opener').focus();
    at('opener').click();
    await fixture.whenStable();
  }

  it('has the focus in its first field as it is drawn', async () => {
    await press();
    expect(document.activeElement).toBe(at('first'));
  });

  it('leaves the focus with a field that was gone to before it had come in', async () => {
    await press();
    at('second').focus();
    await frame();
    await until(isIn);
    // As long again as PrimeNG's own would wait.
    const until200 = performance.now() + 200;
    await until(() => performance.now() > until200);
    expect(document.activeElement).toBe(at('second'));
  });

  it('begins with its answers where nothing is asked', async () => {
    fixture.componentInstance.loaded.set(false);
    await press();
    await until(() => document.activeElement === at('answer'));
    expect(document.activeElement).toBe(at('answer'));
  });

  it('gives the focus back', async () => {
    await press();
    document.querySelector<HTMLElement>('[aria-label="Close"]')!.click();
    await until(() => document.activeElement === at('opener'));
    expect(fixture.componentInstance.open()).toBeFalse();
  });
});
