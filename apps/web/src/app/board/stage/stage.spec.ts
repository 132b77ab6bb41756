import { provideZonelessChangeDetection, signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import type { ComponentFixture } from '@angular/core/testing';
import { TestbedHarnessEnvironment } from '@angular/cdk/testing/testbed';
import { BoardDraft, emptyBoard } from '@cuaderno/core/board';
import type { Board, Item } from '@cuaderno/core/board';
import type { Point } from '@cuaderno/core/geometry';
import { newId } from '@cuaderno/core/id';
import type { Id } from '@cuaderno/core/id';
import { decodeStroke } from '@cuaderno/core/ink';
import { apply } from '@cuaderno/core/ops';
import { addMark, addPages, somePages } from '@cuaderno/core/testing';
import type { Tool } from '../tool/tool';
import { Stage } from './stage';
import { StageHarness } from './stage.harness';
import { WATCHING } from './stage-work';
import type { StageWork } from './stage-work';

describe('the stage', () => {
  const [first] = somePages(1);
  const page = first!.id;
  let fixture: ComponentFixture<Stage>;
  let harness: StageHarness;
  let board: Board;
  let mark: Id;

  const tool = signal<Tool>('pen');
  const writes = signal(true);
  const points = signal(true);
  /** What was told, in its order. */
  let told: string[];
  let strokes: Uint8Array[];
  let work: StageWork;

  beforeEach(async () => {
    const draft = new BoardDraft(emptyBoard(newId()));
    const add = addMark(page, { layer: 'ink' });
    mark = add.id;
    for (const op of [addPages([first!]), add])
      apply(op, draft, { by: newId(), at: 1, lesson: null });
    board = draft.done();
    tool.set('pen');
    writes.set(true);
    points.set(true);
    told = [];
    strokes = [];
    work = {
      ...WATCHING,
      tool: tool.asReadonly(),
      mayWriteOn: () => (id) => id === page && writes(),
      mayErase: () => () => true,
      mayChange: () => () => true,
      mayPointOn: () => () => points(),
      drawn: ({ page: on, ink }) => {
        told.push(`drawn on ${on}`);
        strokes.push(ink);
      },
      erased: ({ items }) => told.push(`erased ${items.join()}`),
      chose: (selection) => {
        if (selection) told.push(`chose ${selection.ids.join()}`);
      },
      placed: (_selection, from, to) => told.push(`placed ${to.x - from.x > 0 ? 'right' : 'left'}`),
      pointed: (at) => told.push(at ? 'pointed' : 'points no more'),
      wrote: (on, _at, item: Item | null) => told.push(`wrote ${item ? 'there' : 'anew'} on ${on}`),
    };
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    fixture = TestBed.createComponent(Stage);
    fixture.nativeElement.style.cssText = 'display:grid;width:600px;height:500px';
    fixture.componentRef.setInput('board', board);
    fixture.componentRef.setInput('work', work);
    await fixture.whenStable();
    harness = await TestbedHarnessEnvironment.harnessForFixture(fixture, StageHarness);
  });

  /** Where a place on the page is in the window. */
  const at = (x: number, y: number): Point =>
    fixture.componentInstance.view.locate(page, { x, y })!;
  const settled = (): Promise<void> => fixture.whenStable();

  it('turns what a pen does into a line on the page under it, in points', async () => {
    await harness.drag(at(100, 300), at(150, 310), at(200, 300));
    expect(told).toEqual([`drawn on ${page}`]);
    const { points: line } = decodeStroke(strokes[0]!);
    expect(line[0]!.x).toBeCloseTo(100, 0);
    expect(line.at(-1)!.x).toBeCloseTo(200, 0);
    expect(line.at(-1)!.y).toBeCloseTo(300, 0);
  });

  it('takes no line from somebody who may not write there, and moves the page instead', async () => {
    writes.set(false);
    await settled();
    const before = at(0, 0);
    await harness.drag(at(100, 400), at(100, 350), at(100, 300));
    expect(told).toEqual([]);
    expect(at(0, 0).y).toBeLessThan(before.y);
  });

  it('gives up a line under way as its writer loses the pen', async () => {
    const gone: Id[] = [];
    fixture.componentRef.setInput('work', { ...work, givenUp: (id: Id) => gone.push(id) });
    await settled();
    const { nativeElement } = fixture;
    const glass = (nativeElement as HTMLElement).querySelector('.host')!;
    const { left, top } = glass.getBoundingClientRect();
    for (const [type, x] of [
      ['pointerdown', 100],
      ['pointermove', 150],
    ] as const) {
      const place = at(x, 300);
      const [clientX, clientY] = [left + place.x, top + place.y];
      const how = { pointerType: 'mouse', pointerId: 1, pressure: 0.5 };
      glass.dispatchEvent(new PointerEvent(type, { ...how, clientX, clientY }));
    }
    writes.set(false);
    await settled();
    expect(gone.length).toBe(1);
    expect(told).toEqual([]);
  });

  it('follows the tool in hand: the same drag erases, chooses and moves', async () => {
    tool.set('eraser');
    await settled();
    await harness.drag(at(100, 140), at(120, 140), at(140, 140));
    expect(told).toEqual([`erased ${mark}`]);
    told = [];
    tool.set('select');
    await settled();
    await harness.drag(at(120, 140), at(150, 140), at(200, 140));
    expect(told).toEqual([`chose ${mark}`, 'placed right']);
  });

  it('points where the pointer hovers, and no longer once another tool is taken', async () => {
    tool.set('pointer');
    await settled();
    await harness.hover(at(200, 300));
    expect(told).toEqual(['pointed']);
    tool.set('pen');
    await settled();
    expect(told).toEqual(['pointed', 'points no more']);
  });

  it('opens words where the text tool touches', async () => {
    tool.set('text');
    await settled();
    await harness.drag(at(300, 400));
    expect(told).toEqual([`wrote anew on ${page}`]);
  });

  it('lays out one page alone where its reader turns none', async () => {
    const pages = somePages(2);
    const draft = new BoardDraft(emptyBoard(newId()));
    apply(addPages(pages), draft, { by: newId(), at: 1, lesson: null });
    fixture.componentRef.setInput('board', draft.done());
    fixture.componentRef.setInput('work', { ...work, only: () => pages[1]!.id });
    await settled();
    const stage = fixture.componentInstance;
    expect(stage.view.locate(pages[0]!.id, { x: 0, y: 0 })).toBeNull();
    expect(stage.view.locate(pages[1]!.id, { x: 0, y: 0 })).not.toBeNull();
  });

  it('does nothing of its own where somebody only watches', async () => {
    fixture.componentRef.setInput('work', WATCHING);
    await settled();
    await harness.drag(at(100, 300), at(150, 250), at(150, 240));
    await harness.doubleClick(at(120, 140));
    expect(told).toEqual([]);
  });
});
