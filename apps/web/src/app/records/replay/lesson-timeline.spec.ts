import { provideZonelessChangeDetection } from '@angular/core';
import type { ComponentFixture } from '@angular/core/testing';
import { TestBed } from '@angular/core/testing';
import { LessonTimeline } from './lesson-timeline';

const OPENED = Date.UTC(2026, 10, 24, 15, 30);
const whole = { from: OPENED, to: OPENED + 100_000 };

const sign = { symbol: 'triangle', size: 11, legend: '▲ hand' };

describe('the timeline of a lesson', () => {
  let fixture: ComponentFixture<LessonTimeline>;
  let chosen: number[];

  const element = (): HTMLElement => fixture.nativeElement as HTMLElement;

  beforeEach(async () => {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    fixture = TestBed.createComponent(LessonTimeline);
    element().style.cssText = 'display:block;width:628px';
    document.body.append(element());
    for (const [name, value] of Object.entries({
      whole,
      lanes: [
        {
          id: 'ida',
          label: 'Ida',
          colour: '#e69f00',
          stretches: [{ from: OPENED + 10_000, to: OPENED + 40_000 }],
          penDown: 95_000,
        },
        { id: 'noor', label: 'Noor', colour: '#cc79a7', stretches: [], penDown: 0 },
      ],
      happenings: [{ at: OPENED + 50_000, by: 'noor', sign, words: 'Noor raised a hand' }],
      time: OPENED + 25_000,
    }))
      fixture.componentRef.setInput(name, value);
    chosen = [];
    fixture.componentInstance.chosen.subscribe((at) => chosen.push(at));
    await fixture.whenStable();
    await drawn();
  });
  afterEach(() => element().remove());

  /** The chart has come, and has been drawn. */
  async function drawn(): Promise<void> {
    for (let i = 0; i < 500 && !element().querySelector('canvas'); i++)
      await new Promise((next) => requestAnimationFrame(next));
    for (let i = 0; i < 3; i++) await new Promise((next) => requestAnimationFrame(next));
    await fixture.whenStable();
  }

  function pixel(x: number, y: number): number[] {
    const canvas = element().querySelector('canvas')!;
    const scale = canvas.width / canvas.clientWidth;
    return [...canvas.getContext('2d')!.getImageData(x * scale, y * scale, 1, 1).data];
  }

  it('has a row for each person, in their colour where they worked', () => {
    // Names are 110 px wide, and 18 px are free at the right: 100 s on 500 px.
    const [r, g, b] = pixel(110 + 25 * 5, 13);
    expect([r, g, b]).toEqual([0xe6, 0x9f, 0x00]);
    expect(pixel(110 + 70 * 5, 13)[3]).toBe(0);
  });

  it('marks the moment that is seen, and goes to the one that is touched', () => {
    const now = element().querySelector<HTMLElement>('.now')!;
    const canvas = element().querySelector('canvas')!;
    const box = canvas.getBoundingClientRect();
    expect(now.getBoundingClientRect().x - box.x).toBeCloseTo(110 + 25 * 5, 0);
    const at = { clientX: box.x + 110 + 60 * 5, clientY: box.y + 30, bubbles: true };
    for (const type of ['mousedown', 'mouseup', 'click'])
      canvas.dispatchEvent(new MouseEvent(type, at));
    expect(chosen.length).toBe(1);
    expect(chosen[0]).toBeCloseTo(OPENED + 60_000, -3);
  });

  it('is a table and a list as well, for who doesn’t see a chart', () => {
    const rows = [...element().querySelectorAll('tbody tr')].map((row) =>
      [...row.children].map((cell) => cell.textContent.trim()),
    );
    expect(rows).toEqual([
      ['Ida', '2 min', '1'],
      ['Noor', '0 s', '0'],
    ]);
    const [item] = element().querySelectorAll('li');
    expect(item!.textContent).toContain('Noor raised a hand');
    item!.querySelector('button')!.click();
    expect(chosen).toEqual([OPENED + 50_000]);
  });
});
