import { ChangeDetectionStrategy, Component, signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { Tip } from './tip';

@Component({
  imports: [Tip],
  template: `
    <button id="pen" [cuaTip]="pen()"><i></i></button>
    <button id="undo" aria-label="Undo" cuaTip="Undo what I did (Ctrl+Z)">↶</button>
    <button id="stop" cuaTip="Stop">Stop</button>
    <label>Name <input id="name" cuaTip="Give it another name" /></label>
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
class Host {
  readonly pen = signal('Pen (P)');
}

describe('a tip', () => {
  let element: HTMLElement;
  let host: Host;

  beforeEach(async () => {
    const fixture = TestBed.createComponent(Host);
    ({ nativeElement: element, componentInstance: host } = fixture);
    document.body.append(element);
    await fixture.whenStable();
    jasmine.clock().install();
  });
  afterEach(() => {
    jasmine.clock().uninstall();
    element.remove();
  });

  const at = (id: string): HTMLElement => element.querySelector(`#${id}`)!;
  const point = (id: string, type: string, pointerType = 'mouse'): boolean =>
    at(id).dispatchEvent(new PointerEvent(type, { pointerType }));
  const panel = (): HTMLElement | null => document.querySelector('.cua-tip:popover-open');
  const press = (key: string): boolean =>
    document.body.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true }));

  it('comes where a pointer rests, and goes when it leaves', () => {
    point('pen', 'pointerenter');
    jasmine.clock().tick(200);
    expect(panel()).toBeNull();
    jasmine.clock().tick(400);
    expect(panel()?.textContent).toBe('Pen (P)');
    point('pen', 'pointerleave');
    jasmine.clock().tick(400);
    expect(panel()).toBeNull();
  });

  it('comes at once for the next one that a pointer goes to', () => {
    point('pen', 'pointerenter');
    jasmine.clock().tick(500);
    point('pen', 'pointerleave');
    point('undo', 'pointerenter');
    jasmine.clock().tick(1);
    expect(panel()?.textContent).toBe('Undo what I did (Ctrl+Z)');
  });

  it('stays while the pointer is on it, and goes by Escape', () => {
    point('pen', 'pointerenter');
    jasmine.clock().tick(500);
    point('pen', 'pointerleave');
    panel()!.dispatchEvent(new PointerEvent('pointerenter'));
    jasmine.clock().tick(2000);
    expect(panel()).not.toBeNull();
    press('Escape');
    expect(panel()).toBeNull();
  });

  it('does not come under a finger, nor after a press', () => {
    point('pen', 'pointerenter', 'touch');
    jasmine.clock().tick(1000);
    expect(panel()).toBeNull();
    point('pen', 'pointerenter');
    jasmine.clock().tick(500);
    at('pen').click();
    expect(panel()).toBeNull();
  });

  it('lies in the window', () => {
    at('undo').style.cssText = 'position:fixed;right:0;bottom:0';
    point('undo', 'pointerenter');
    jasmine.clock().tick(500);
    const { left, top, right, bottom } = panel()!.getBoundingClientRect();
    expect(left).toBeGreaterThanOrEqual(0);
    expect(top).toBeGreaterThanOrEqual(0);
    expect(right).toBeLessThanOrEqual(innerWidth);
    expect(bottom).toBeLessThanOrEqual(at('undo').getBoundingClientRect().top);
  });

  it('lies beside a column whose buttons it would cover', () => {
    element.style.cssText = 'position:fixed;left:0;top:0;width:80px';
    element.dataset['tips'] = 'beside';
    point('undo', 'pointerenter');
    jasmine.clock().tick(500);
    expect(panel()!.getBoundingClientRect().left).toBeGreaterThanOrEqual(80);
  });

  it('names what has no name, and describes what has another', async () => {
    expect(at('pen').getAttribute('aria-label')).toBe('Pen (P)');
    expect(at('undo').getAttribute('aria-label')).toBe('Undo');
    expect(at('undo').getAttribute('aria-description')).toBe('Undo what I did (Ctrl+Z)');
    expect(at('stop').hasAttribute('aria-description')).toBeFalse();
    expect(at('name').hasAttribute('aria-label')).toBeFalse();
    host.pen.set('Thick pen (P)');
    TestBed.tick();
    expect(at('pen').getAttribute('aria-label')).toBe('Thick pen (P)');
  });

  it('goes with what it belongs to', () => {
    point('pen', 'pointerenter');
    jasmine.clock().tick(500);
    TestBed.resetTestingModule();
    expect(document.querySelector('.cua-tip')).toBeNull();
  });
});
