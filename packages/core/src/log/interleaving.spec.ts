import fc from 'fast-check';
import {
  boardFromSnapshot,
  boardSnapshot,
  coversOn,
  itemsOn,
  pagesInOrder,
} from '../board/index.js';
import { changeItem, changePage, operation } from '../ops/index.js';
import type { Operation } from '../ops/index.js';
import type { Trust } from '../permissions/index.js';
import { addInk, addMark, addPages, seen, somePages, World } from '../testing/index.js';
import { pack, unpack } from '../wire/index.js';
import {
  copyPages,
  setPageProps,
  layCover,
  liftCovers,
  movePages,
  onItsSheet,
  strokeOf,
  wipe,
} from '../edits/index.js';
import { newId } from '../id/index.js';
import { cutStroke, encodeStroke } from '../ink/index.js';
import { fold, takeOut } from './index.js';

const who = fc.integer({ min: 0, max: 2 });
const step = fc.oneof(
  { weight: 4, arbitrary: fc.record({ do: fc.constant('write' as const), who, n: fc.nat(9) }) },
  {
    weight: 3,
    arbitrary: fc.record({
      do: fc.constantFrom('erase' as const, 'cut' as const),
      who,
      n: fc.nat(9),
    }),
  },
  {
    weight: 3,
    arbitrary: fc.record({
      do: fc.constantFrom('lay' as const, 'shift' as const, 'hide' as const, 'reveal' as const),
      who,
      n: fc.nat(9),
    }),
  },
  {
    weight: 2,
    arbitrary: fc.record({ do: fc.constantFrom('undo' as const, 'redo' as const), who }),
  },
  {
    weight: 1,
    arbitrary: fc.record({
      do: fc.constantFrom(
        'page' as const,
        'unpage' as const,
        'move' as const,
        'copy' as const,
        'set up' as const,
        'rename' as const,
        'hold' as const,
        'show' as const,
        'note' as const,
        'sheet' as const,
        'freeze' as const,
        'wipe' as const,
        'cover' as const,
        'lift' as const,
      ),
      who,
      n: fc.nat(9),
    }),
  },
  {
    weight: 1,
    arbitrary: fc.record({
      do: fc.constant('trust' as const),
      who,
      trust: fc.constantFrom<Trust>('view', 'write', 'hands'),
    }),
  },
  {
    weight: 4,
    arbitrary: fc.record({ do: fc.constantFrom('deliver' as const, 'open' as const), who }),
  },
  {
    weight: 1,
    arbitrary: fc.record({
      do: fc.constantFrom('again' as const, 'lose' as const, 'reconnect' as const),
      who,
    }),
  },
  {
    weight: 2,
    arbitrary: fc.record({
      do: fc.constantFrom('anew' as const, 'give' as const),
      who,
      n: fc.nat(3),
    }),
  },
);
type Step = typeof step extends fc.Arbitrary<infer T> ? T : never;

function run(world: World, s: Step): void {
  const browser = world.browsers[s.who]!;
  const pages = pagesInOrder(browser.replica.view);
  const record = (op: Operation) => {
    browser.history.record(op);
    browser.make(op);
  };
  switch (s.do) {
    case 'write': {
      const page = pages[s.n % (pages.length || 1)];
      if (page) record(onItsSheet(browser.replica.view, addInk(page.id, s.n)));
      break;
    }
    case 'cover':
    case 'lift': {
      const page = pages[s.n % (pages.length || 1)];
      if (!page) break;
      const ways = ['whole', 'beside', 'above'] as const;
      const covers = coversOn(page).map(({ id }) => id);
      const changes =
        s.do === 'cover'
          ? layCover(page, ways[s.n % 3]!, '#ffffff')
          : liftCovers(browser.replica.view, page.id, covers, s.n < 5);
      for (const change of changes) record(operation(change));
      break;
    }
    case 'erase': {
      const page = pages.find((p) => itemsOn(p).length > 0);
      const item = page && itemsOn(page)[s.n % itemsOn(page).length];
      if (item) record(operation({ kind: 'items.remove', page: page.id, items: [item.id] }));
      break;
    }
    case 'cut': {
      const lines = pages.flatMap((page) => itemsOn(page).map((item) => ({ page, item })));
      const found = lines[s.n % (lines.length || 1)];
      if (found?.item.kind !== 'ink') break;
      const stroke = strokeOf(found.item.ink);
      const middle = stroke.points[Math.floor(stroke.points.length / 2)]!;
      const pieces = cutStroke(stroke, middle, middle, 1 + s.n / 4) ?? [];
      const item = found.item.id;
      if (pieces.length > 0)
        record(
          operation({
            kind: 'ink.cut',
            page: found.page.id,
            item,
            pieces: pieces.map((piece) => ({ id: newId(), ink: encodeStroke(piece) })),
          }),
        );
      break;
    }
    case 'freeze': {
      const page = pages[s.n % (pages.length || 1)];
      const rules = s.n % 2 ? { trust: 'view' as const } : {};
      const change = page && changePage(browser.replica.view, page.id, { rules });
      if (change) record(operation(change));
      break;
    }
    case 'wipe': {
      const whose = s.n < 3 ? { who: browser.id } : s.n < 6 ? 'students' : 'all';
      const tutor = world.browsers[0]!.id;
      for (const change of wipe(browser.replica.view, whose, 'all', tutor))
        record(operation(change));
      break;
    }
    case 'lay': {
      const page = pages[s.n % (pages.length || 1)];
      const layer = s.n % 2 ? 'material' : 'ink';
      if (page) record(addMark(page.id, { layer, hidden: s.n === 3 }));
      break;
    }
    case 'shift':
    case 'hide':
    case 'reveal': {
      const all = pages.flatMap((page) => itemsOn(page).map((item) => ({ page, item })));
      const found = all[s.n % (all.length || 1)];
      if (!found || found.item.kind === 'ink') break;
      const frame = { x: s.n, y: 5, width: 20, height: 20, turn: 0 };
      const to = s.do === 'shift' ? { frame } : { hidden: s.do === 'hide' };
      const change = changeItem(browser.replica.view, found.page.id, found.item.id, to);
      if (change) record(operation(change));
      break;
    }
    case 'undo':
    case 'redo':
      for (const op of browser.history[s.do](browser.replica.view)) browser.make(op);
      break;
    case 'page':
      record(addPages(somePages(1)));
      break;
    case 'unpage':
      if (pages[0]) record(operation({ kind: 'pages.remove', pages: [pages[0].id] }));
      break;
    case 'move':
    case 'copy':
    case 'set up': {
      const page = pages[s.n % (pages.length || 1)];
      if (!page) break;
      const board = browser.replica.view;
      const paper = { kind: 'ruled', spacing: 10 + s.n } as const;
      const edit =
        s.do === 'move'
          ? movePages(board, [page.id], (s.n * 7) % 5)
          : s.do === 'copy'
            ? copyPages(board, [page.id])
            : setPageProps(board, [page.id], { name: `Page ${s.n}`, paper });
      for (const change of edit?.changes ?? []) record(operation(change));
      break;
    }
    case 'hold':
    case 'show':
    case 'note': {
      const page = pages[s.n % (pages.length || 1)];
      const to =
        s.do === 'note'
          ? { privateNotes: [{ runs: [{ text: `Ask ${s.n}` }] }] }
          : { hidden: s.do === 'hold' };
      const change = page && changePage(browser.replica.view, page.id, to);
      if (change) record(operation(change));
      break;
    }
    case 'sheet': {
      const to = { paper: { kind: 'plain' } as const, width: 300 + s.n, height: 400 };
      record(operation({ kind: 'board.sheet', to, from: browser.replica.view.sheet }));
      break;
    }
    case 'rename':
      record(
        operation({
          kind: 'board.rename',
          title: `Board ${s.n}`,
          former: browser.replica.view.title,
        }),
      );
      break;
    case 'trust':
      if (s.who > 0) world.actors[s.who] = { ...world.actors[s.who]!, trust: s.trust };
      break;
    case 'deliver':
      world.deliver(s.who);
      break;
    case 'open':
      world.open(s.who);
      break;
    case 'again':
      if (browser.outbox[0]) world.take(browser.outbox[0], s.who);
      break;
    case 'lose':
      browser.inbox.shift();
      break;
    case 'reconnect':
      world.reconnect(s.who);
      break;
    case 'anew': {
      const { pages } = world.boardFor(s.who);
      world.anew(s.who, new Set([...pages.keys()].slice(0, s.n)));
      break;
    }
    case 'give':
      world.give(s.who, s.n);
      break;
  }
}

describe('the log, whatever is interleaved, doubled, lost and sent again', () => {
  it('ends in the same board everywhere, with nothing pending', () => {
    fc.assert(
      fc.property(fc.array(step, { maxLength: 80 }), (steps) => {
        const world = new World();
        world.take(addPages(somePages(2)), 0);
        for (const s of steps) run(world, s);
        world.settle();
        const truth = seen(fold(world.empty, world.log));
        expect(seen(world.server.board)).toEqual(truth);
        world.browsers.forEach(({ replica, coming }, i) => {
          expect(replica.unconfirmed).toEqual([]);
          expect(coming.size).toBe(0);
          expect(replica.seq).toBe(world.log.length);
          expect(seen(replica.view)).toEqual(i === 0 ? truth : seen(world.boardFor(i)));
        });
      }),
      { numRuns: 400 },
    );
  });

  it('keeps every line that a person with a pen wrote, unless someone erased or undid it', () => {
    fc.assert(
      fc.property(fc.array(step, { maxLength: 60 }), (steps) => {
        const world = new World();
        world.take(addPages(somePages(1)), 0);
        const stays = ['write', 'deliver', 'open', 'again', 'lose', 'reconnect'];
        const calm = steps.filter((s) => stays.includes(s.do));
        for (const s of calm) run(world, s);
        const made = new Set(
          world.browsers
            .slice(0, 2)
            .flatMap(({ replica }) => replica.unconfirmed.map(({ op }) => op.id)),
        );
        world.settle();
        const kept = new Set(
          pagesInOrder(world.server.board).flatMap((p) => itemsOn(p).map((i) => i.id)),
        );
        const lines = world.log.filter(({ op }) => op.kind === 'ink.add').map(({ op }) => op.id);
        expect(lines.every((id) => kept.has(id))).toBeTrue();
        expect([...made].every((id) => world.log.some(({ op }) => op.id === id))).toBeTrue();
      }),
    );
  });

  it('has all but what somebody drew, and no trace of that, when it is taken out', () => {
    fc.assert(
      fc.property(fc.array(step, { maxLength: 80 }), who, (steps, whose) => {
        const world = new World();
        world.take(addPages(somePages(2)), 0);
        for (const s of steps) run(world, s);
        world.settle();
        const { id } = world.browsers[whose]!;
        const out = new Map(takeOut(world.log, new Set([id])).map((entry) => [entry.seq, entry]));
        const left = world.log.map((entry) => out.get(entry.seq) ?? entry);
        const whole = fold(world.empty, world.log);
        const without = new Map(
          [...whole.pages].map(([page, all]) => {
            const items = [...all.items].filter(([, item]) => item.by !== id);
            return [page, { ...all, items: new Map(items) }];
          }),
        );
        const board = fold(world.empty, left);
        expect(seen(board)).toEqual(seen({ ...whole, pages: without }));
        for (const page of board.pages.values())
          for (const item of page.items.values()) expect(item.by).not.toBe(id);
        // Nothing that was done to one of their lines shows any more what it was.
        for (const { op, by } of left) {
          if (op.kind === 'ink.add' || op.kind === 'item.add') expect(by).not.toBe(id);
          if (op.kind === 'ink.cut' || op.kind === 'ink.mend' || op.kind === 'item.change')
            expect(whole.pages.get(op.page)?.items.get(op.item)?.by).not.toBe(id);
        }
        expect(left.map(({ seq, op }) => [seq, op.id])).toEqual(
          world.log.map(({ seq, op }) => [seq, op.id]),
        );
        expect(takeOut(left, new Set([id]))).toEqual([]);
      }),
      { numRuns: 300 },
    );
  });

  it('folds to the same board at once, piece by piece, or from a snapshot on the way', () => {
    fc.assert(
      fc.property(fc.array(step, { maxLength: 60 }), fc.nat(), (steps, at) => {
        const world = new World();
        world.take(addPages(somePages(2)), 0);
        for (const s of steps) run(world, s);
        world.settle();
        const cut = at % (world.log.length + 1);
        const half = fold(world.empty, world.log.slice(0, cut));
        const kept = boardFromSnapshot(unpack(pack(boardSnapshot(half, cut))) as never);
        expect(seen(fold(kept, world.log.slice(cut)))).toEqual(seen(fold(world.empty, world.log)));
      }),
    );
  });
});
