import { Injector } from '@angular/core';
import { toObservable } from '@angular/core/rxjs-interop';
import { TestBed } from '@angular/core/testing';
import { filter, firstValueFrom, map } from 'rxjs';
import { emptyBoard, itemsOn } from '@cuaderno/core/board';
import { newId } from '@cuaderno/core/id';
import { predict, receive, replica } from '@cuaderno/core/log';
import { operation } from '@cuaderno/core/ops';
import type { Board, Item } from '@cuaderno/core/board';
import { spokenItem, wordsOf } from '@cuaderno/core/kinds';
import type { FormulaSpec } from '@cuaderno/core/kinds';
import type { Replica } from '@cuaderno/core/log';
import type { Change, Operation } from '@cuaderno/core/ops';
import { addPages, somePages } from '@cuaderno/core/testing';
import type { BoardSession } from '../../live/board-session';
import { FormulaReader } from './formula-reader';
import { FormulaWriter } from './formula-writer';

const me = newId();
const [sheet] = somePages(1);
const page = sheet!.id;
const STYLE = { notation: 'latex', size: 20, ink: 'coal' } as const;

/** A session without a server: what is done is there at once. */
class Alone {
  state: Replica;
  steps = 0;

  constructor() {
    const entry = { seq: 1, by: me, at: 1, lesson: null, op: addPages([sheet!]) };
    this.state = receive(replica(emptyBoard(newId()), 0), [entry])!;
  }

  board(): Board {
    return this.state.view;
  }

  do(change: Change): void {
    this.steps++;
    const op = 'id' in change ? (change as Operation) : operation(change);
    this.state = predict(this.state, op, { by: me, at: 2, lesson: null });
  }
}

describe('writing formulas', () => {
  let alone: Alone;
  let writer: FormulaWriter;
  const formulas = (): (Item & FormulaSpec)[] =>
    itemsOn(alone.board().pages.get(page)!).filter((item) => item.kind === 'formula');

  /** What is written is in words: their rules are fetched first. */
  const inWords = (): Promise<string> =>
    firstValueFrom(
      toObservable(writer.draft, { injector: TestBed.inject(Injector) }).pipe(
        map((draft) => draft!.words),
        filter((words) => words !== ''),
      ),
    );

  beforeEach(() => {
    alone = new Alone();
    writer = new FormulaWriter(
      () => alone as unknown as BoardSession,
      () => 'material',
    );
    writer.open(page, { x: 50, y: 100 }, null, STYLE);
  });

  afterEach(() => writer.close(true));

  it('shows a formula where it will stand, as it is typed', async () => {
    expect(writer.lifted()?.items).toEqual([]);
    await writer.write('\\frac{a}{b}');
    const [item] = writer.lifted()!.items as (Item & FormulaSpec)[];
    expect(item!.frame.x).toBe(50);
    expect(item!.frame.y + item!.frame.height / 2).toBeCloseTo(100, 6);
    expect(item!.frame.height).toBeGreaterThan(20);
    expect(formulas()).withContext('the keys have not rested yet').toEqual([]);
  });

  it('keeps what was readable last while it is being put right, and nothing on the page that isn’t', async () => {
    await writer.write('a^2');
    const before = writer.lifted()!.items;
    await writer.write('a^{2');
    expect(writer.problem()).toContain('put }');
    expect((writer.lifted()!.items[0] as FormulaSpec).outline).toBe(
      (before[0] as FormulaSpec).outline,
    );
    expect(await writer.close())
      .withContext('it stays open')
      .toBeFalse();
    expect(formulas()).toEqual([]);
    await writer.write('a^{2}');
    expect(writer.problem()).toBeNull();
    expect(await writer.close()).toBeTrue();
    expect(formulas().map(({ source }) => source)).toEqual(['a^{2}']);
  });

  it('changes one that is there, in place', async () => {
    await writer.write('a+b');
    await writer.close();
    const [first] = formulas();
    writer.open(page, { x: 0, y: 0 }, first!, STYLE);
    await writer.write('a+b+c');
    await writer.restyle({ ink: 'poppy', size: 40 });
    await writer.close();
    const [now] = formulas();
    expect(formulas().length).toBe(1);
    expect(now!.id).toBe(first!.id);
    expect(now!.frame.x).toBe(first!.frame.x);
    expect(now!.colour).not.toBe(first!.colour);
    expect((now!.frame.width / now!.box.width) * 1000).toBeCloseTo(40, 6);
    expect(alone.steps).withContext('laid once, changed once').toBe(2);
  });

  it('is laid once, with its words, though the keys rest before those come', async () => {
    jasmine.clock().install();
    try {
      let come!: (words: string) => void;
      const words = new Promise<string>((resolve) => (come = resolve));
      spyOn(FormulaReader.prototype, 'read').and.returnValue(words);
      await writer.write('a+b');
      jasmine.clock().tick(1500);
      await Promise.resolve();
      expect(formulas()).withContext('its words are still to come').toEqual([]);
      come('a plus b');
      await writer.flush();
      expect(formulas().map(({ words }) => words)).toEqual(['a plus b']);
      expect(alone.steps).toBe(1);
    } finally {
      jasmine.clock().uninstall();
    }
  });

  it('is laid at once where the window goes before its words have come', async () => {
    spyOn(FormulaReader.prototype, 'read').and.returnValue(new Promise(() => undefined));
    await writer.write('a+b');
    expect(formulas()).toEqual([]);
    window.dispatchEvent(new Event('pagehide'));
    expect(formulas().map(({ source, words }) => [source, words])).toEqual([['a+b', '']]);
  });

  it('stands on the page with how it is read aloud, and is found by both', async () => {
    await writer.write('\\frac{x^2}{2}');
    await inWords();
    await writer.close();
    const [item] = formulas();
    expect(item!.words).toBe('the fraction with numerator x squared and denominator 2');
    expect(spokenItem(item!)).toContain('Formula: the fraction');
    expect(wordsOf(item!)).toContain('\\frac');
    expect(wordsOf(item!)).toContain('squared');

    writer.open(page, { x: 0, y: 0 }, item!, STYLE);
    await writer.write('\\frac{x^3}{2}');
    await writer.close();
    expect(formulas()[0]!.words).withContext('no words of before').toContain('x cubed');
  });

  it('goes where nothing is left of it', async () => {
    await writer.write('a');
    await writer.close();
    writer.open(page, { x: 0, y: 0 }, formulas()[0]!, STYLE);
    await writer.write('  ');
    await writer.close();
    expect(formulas()).toEqual([]);
  });

  it('is given up without a trace where it can’t be read', async () => {
    await writer.write('\\frac{');
    expect(await writer.close(true)).toBeTrue();
    expect(writer.draft()).toBeNull();
    expect(formulas()).toEqual([]);
  });

  it('is translated when LaTeX is wanted of what was typed', async () => {
    writer.open(page, { x: 50, y: 100 }, null, { ...STYLE, notation: 'typed' });
    await writer.write('sqrt(x)/2');
    await writer.restyle({ notation: 'latex' });
    expect(writer.draft()!.source).toBe('\\frac{\\sqrt{x}}{2}');
  });

  it('loses nothing that is written while LaTeX is asked for', async () => {
    writer.open(page, { x: 50, y: 100 }, null, { ...STYLE, notation: 'typed' });
    const blank = writer.restyle({ notation: 'latex' });
    void writer.write('\\frac{1}{2}');
    await blank;
    expect(writer.draft()).toEqual(
      jasmine.objectContaining({ notation: 'latex', source: '\\frac{1}{2}' }),
    );
    writer.open(page, { x: 50, y: 100 }, null, { ...STYLE, notation: 'typed' });
    await writer.write('sqrt(x)');
    const translated = writer.restyle({ notation: 'latex' });
    void writer.write('sqrt(x)/2');
    await translated;
    expect(writer.draft()!.source).toBe('\\frac{\\sqrt{x}}{2}');
  });
});
