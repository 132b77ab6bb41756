import {
  ChangeDetectionStrategy,
  Component,
  provideZonelessChangeDetection,
  signal,
} from '@angular/core';
import type { ComponentFixture } from '@angular/core/testing';
import { TestBed } from '@angular/core/testing';
import { ToolBar } from './tool-bar';
import { ToolDock } from './tool-dock';
import { newId } from '@cuaderno/core/id';
import type { Item, PlacedItem } from '@cuaderno/core/board';
import type { SelectionCommand } from '../editing/arranging';
import type { Written } from '../kinds/kind';
import type { TextDraft } from '../kinds/text/laid-out';
import { Tools } from '../tool/tool';

@Component({
  imports: [ToolBar, ToolDock],
  template: `
    <cua-tool-dock [tools]="tools" [enabled]="enabled()" [points]="points()" [lights]="lights()" />
    <cua-tool-bar
      [tools]="tools"
      [enabled]="enabled()"
      [lights]="lights()"
      [isLit]="isLit()"
      [chosen]="chosen()"
      [written]="written()"
      (putOut)="out = out + 1"
      (selectionCommand)="commands.push($event)"
    />
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
class Host {
  readonly tools = new Tools();
  readonly enabled = signal(true);
  readonly points = signal(false);
  readonly lights = signal(false);
  readonly isLit = signal(false);
  readonly chosen = signal<readonly Item[]>([]);
  readonly written = signal<Written | null>(null);
  readonly commands: SelectionCommand[] = [];
  out = 0;
}

describe('the tools, and the bar of the one in hand', () => {
  let fixture: ComponentFixture<Host>;
  let tools: Tools;

  beforeEach(async () => {
    localStorage.clear();
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    fixture = TestBed.createComponent(Host);
    tools = fixture.componentInstance.tools;
    await fixture.whenStable();
  });

  const button = (name: string): HTMLButtonElement =>
    [...(fixture.nativeElement as HTMLElement).querySelectorAll('button')].find(
      (b) => (b.getAttribute('aria-label') ?? b.textContent.trim()) === name,
    )!;
  const press = async (name: string): Promise<void> => {
    button(name).click();
    await fixture.whenStable();
  };

  it('keeps ink and width of pen and highlighter apart', async () => {
    await press('Poppy red');
    await press('Thick');
    await press('Highlighter');
    await press('Mint green');
    expect(tools.style()).toEqual({ tool: 'highlighter', ink: 'mint', width: 16 });
    await press('Pen');
    expect(tools.style()).toEqual({ tool: 'pen', ink: 'poppy', width: 5 });
  });

  it('shows by a letter too which ink is which', () => {
    expect(button('Fern green').textContent.trim()).toBe('F');
  });

  it('stays where it is without a pen, out of use but for moving', async () => {
    fixture.componentInstance.enabled.set(false);
    await fixture.whenStable();
    expect(button('Pen').disabled).toBeTrue();
    expect(button('Poppy red').disabled).toBeTrue();
    expect(button('Move').disabled).toBeFalse();
  });

  it('is as it was left, on this machine', async () => {
    await press('Iris violet');
    await press('To the right');
    TestBed.tick();
    const again = TestBed.runInInjectionContext(() => new Tools());
    expect([again.pen().ink, again.side()]).toEqual(['iris', 'right']);
  });

  it('has own pens a touch away, and keeps the one in hand in the place of one of them', async () => {
    await press('Mine 2: poppy, 21 points wide');
    expect(tools.style()).toEqual({ tool: 'pen', ink: 'poppy', width: 21 });
    await press('Iris violet');
    await press('Save this pen');
    await press('Keep it as Mine 3: lemon, 16 points wide');
    await press('Mine 1: midnight, 1.2 points wide');
    await press('Mine 3: iris, 21 points wide');
    expect(tools.style()).toEqual({ tool: 'pen', ink: 'iris', width: 21 });
  });

  it('shows the pointer and the lamp to whom may use them', async () => {
    expect(button('Pointer')).toBeUndefined();
    fixture.componentInstance.points.set(true);
    await fixture.whenStable();
    await press('Pointer');
    await press('Arrow');
    expect(tools.leavesArrow()).toBeTrue();
    expect(button('Lamp')).toBeUndefined();
    fixture.componentInstance.lights.set(true);
    fixture.componentInstance.isLit.set(true);
    await fixture.whenStable();
    await press('Put the lamp out');
    expect(fixture.componentInstance.out).toBe(1);
  });

  it('rubs out whole things, or parts of lines', async () => {
    await press('Eraser');
    await press('Part of a line');
    expect(tools.rubs()).toBeTrue();
    await press('Whole line');
    expect(tools.rubs()).toBeFalse();
  });

  it('shows what can be chosen of the kinds that are chosen, and of words that are being written', async () => {
    await press('Select');
    const group = (name: string): Element | null =>
      (fixture.nativeElement as HTMLElement).querySelector(`[role=group][aria-label="${name}"]`);
    expect(group('How words are written')).toBeNull();
    const text = draft();
    const restyled: object[] = [];
    fixture.componentInstance.written.set({
      ...{ text, restyle: (to: object) => void restyled.push(to), mark: () => undefined },
    } satisfies Written);
    await fixture.whenStable();
    expect(group('How words are written')).not.toBeNull();
    await press('Fern green');
    expect(restyled).toEqual([{ ink: 'fern' }]);

    fixture.componentInstance.written.set(null);
    const chosen = [shape('box'), shape('ellipse')];
    const { commands } = fixture.componentInstance;
    fixture.componentInstance.chosen.set(chosen);
    await fixture.whenStable();
    expect(group('How words are written')).toBeNull();
    await press('Thick');
    await press('Dashed');
    const [width, dashed] = commands;
    expect(width).toEqual({ kind: 'width', width: 5 });
    expect(dashed?.kind === 'traits' && dashed.ids).toEqual(chosen.map(({ id }) => id));
    // What is fixed stays as it is.
    fixture.componentInstance.chosen.set([{ ...chosen[0]!, fixed: true }]);
    await fixture.whenStable();
    expect(group('How shapes are drawn')).toBeNull();
  });
});

const PLACE = {
  layer: 'ink' as const,
  frame: { x: 0, y: 0, width: 90, height: 40, turn: 0 },
};

function draft(): TextDraft {
  return {
    ...{ ...PLACE, kind: 'text', text: [], font: 'plain', size: 20, colour: '#000000' },
    ...{ align: 'start', slip: null },
  };
}

function shape(name: 'box' | 'ellipse'): PlacedItem {
  return {
    ...{ ...PLACE, id: newId(), kind: 'shape', shape: name, fill: null, order: 'a0' },
    ...{ outline: { colour: '#c22f2f', width: 1.2 }, by: newId(), at: 0, lesson: null },
    removed: null,
  };
}
