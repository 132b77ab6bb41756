import { ChangeDetectionStrategy, Component, signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import type { ComponentFixture } from '@angular/core/testing';
import { FormsModule } from '@angular/forms';
import { LIST } from './list';

@Component({
  imports: [FormsModule, LIST],
  template: `
    <div id="panel" style="height: 200px; overflow-y: auto">
      <div [style.height.px]="above()"></div>
      <p-select
        ariaLabel="Captions typed by"
        appendTo="body"
        [options]="['Nobody', 'Ida']"
        [(ngModel)]="value"
      />
      <div style="height: 600px"></div>
    </div>
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
class Host {
  readonly above = signal(20);
  readonly value = signal('Nobody');
}

describe('an open list', () => {
  let fixture: ComponentFixture<Host>;
  let element: HTMLElement;

  const list = (): HTMLElement | null => document.querySelector('[role="listbox"]');
  const field = (): HTMLElement => element.querySelector('p-select')!;
  const isOpen = (): boolean =>
    field().querySelector('[role="combobox"]')!.getAttribute('aria-expanded') === 'true';
  const gap = (): number =>
    Math.abs(
      list()!.closest('.p-select-overlay')!.getBoundingClientRect().top -
        field().getBoundingClientRect().bottom,
    );
  const frame = (): Promise<void> => new Promise((done) => requestAnimationFrame(() => done()));
  const until = async (holds: () => boolean): Promise<void> => {
    while (!holds()) await frame();
  };

  beforeEach(async () => {
    fixture = TestBed.createComponent(Host);
    element = fixture.nativeElement as HTMLElement;
    document.body.prepend(element);
    await fixture.whenStable();
    field().click();
    await until(() => list() !== null && gap() < 8);
  });
  afterEach(() => {
    fixture.destroy();
    element.remove();
  });

  it('stays with its field where that moves, and lets a choice be made', async () => {
    fixture.componentInstance.above.set(70);
    const before = field().getBoundingClientRect().top;
    await until(() => field().getBoundingClientRect().top > before + 40);
    await until(() => gap() < 8);
    [...document.querySelectorAll<HTMLElement>('[role="option"]')]
      .find((one) => one.textContent.trim() === 'Ida')!
      .click();
    await fixture.whenStable();
    expect(fixture.componentInstance.value()).toBe('Ida');
  });

  it('stays open where the panel is scrolled or the window changes its size', async () => {
    // PrimeNG hears of both from when it has come in.
    await until(() => document.getAnimations().length === 0);
    await frame();
    const panel = element.querySelector('#panel')!;
    const scrolled = new Promise((done) => panel.addEventListener('scroll', done, { once: true }));
    panel.scrollTop = 10;
    await scrolled;
    window.dispatchEvent(new Event('resize'));
    await frame();
    await until(() => gap() < 8);
    expect(isOpen()).toBeTrue();
  });

  it('closes by a touch elsewhere', async () => {
    // It hears of touches from when it has come in.
    await until(() => {
      document.body.click();
      return !isOpen();
    });
    expect(fixture.componentInstance.value()).toBe('Nobody');
  });
});
