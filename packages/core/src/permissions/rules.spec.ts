import fc from 'fast-check';
import {
  AT_FIRST,
  lesserTrust,
  PERMITS,
  Trust,
  resolvePermissions,
  whyNot,
  whyTrust,
} from './index.js';
import { withRules } from './index.js';
import type { Layers, Level, Permit, Rules } from './index.js';

const layers = (some: Partial<Layers> = {}): Layers => ({
  course: {},
  person: {},
  board: {},
  page: {},
  ...some,
});

describe('what applies', () => {
  it('is what it is at first where nothing is said', () => {
    const { why, ...applies } = resolvePermissions(layers());
    expect(applies).toEqual(AT_FIRST);
    expect(new Set(Object.values(why))).toEqual(new Set(['course']));
  });

  it('comes from the person before the class, and a board or a page only takes away', () => {
    const t = (trust?: Trust): Rules => (trust ? { trust } : {});
    // class, person, board, page → what applies, and where that was said
    const cases: [Trust?, Trust?, Trust?, Trust?, Trust?, Level?][] = [
      [undefined, undefined, undefined, undefined, 'view', 'course'],
      ['write', undefined, undefined, undefined, 'write', 'course'],
      ['hands', undefined, undefined, undefined, 'hands', 'course'],
      ['write', 'view', undefined, undefined, 'view', 'person'],
      ['view', 'write', undefined, undefined, 'write', 'person'],
      ['view', 'hands', undefined, undefined, 'hands', 'person'],
      ['write', undefined, 'view', undefined, 'view', 'board'],
      ['hands', undefined, 'write', undefined, 'write', 'board'],
      ['view', undefined, 'hands', undefined, 'view', 'course'],
      ['view', 'write', 'hands', 'hands', 'write', 'person'],
      ['hands', undefined, 'write', 'view', 'view', 'page'],
      ['hands', undefined, 'view', 'write', 'view', 'board'],
      ['write', 'hands', undefined, 'write', 'write', 'page'],
      ['write', 'hands', undefined, 'view', 'view', 'page'],
      ['view', 'view', 'view', 'view', 'view', 'person'],
    ];
    for (const [course, person, board, page, trust, level] of cases) {
      const applies = resolvePermissions({
        course: t(course),
        person: t(person),
        board: t(board),
        page: t(page),
      });
      expect([course, person, board, page, applies.trust, applies.why.trust]).toEqual([
        course,
        person,
        board,
        page,
        trust,
        level,
      ]);
    }
  });

  it('says the same of everything else that may be done', () => {
    // class, person, board, page → at first so, or not → what applies, and where that was said
    type Said = boolean | undefined;
    const cases: [Said, Said, Said, Said, boolean, boolean, Level][] = [
      [undefined, undefined, undefined, undefined, true, true, 'course'],
      [undefined, undefined, undefined, undefined, false, false, 'course'],
      [false, undefined, undefined, undefined, true, false, 'course'],
      [true, undefined, undefined, undefined, false, true, 'course'],
      [false, true, undefined, undefined, true, true, 'person'],
      [true, false, undefined, undefined, true, false, 'person'],
      [true, undefined, false, undefined, true, false, 'board'],
      [true, true, undefined, false, true, false, 'page'],
      [true, true, false, false, true, false, 'board'],
      [true, true, true, false, true, false, 'page'],
      [false, undefined, true, true, true, false, 'course'],
      [undefined, undefined, true, true, false, false, 'course'],
    ];
    for (const permit of PERMITS)
      for (const [course, person, board, page, atFirst, may, level] of cases) {
        if (course === undefined && person === undefined && AT_FIRST[permit] !== atFirst) continue;
        const r = (said: Said): Rules => (said === undefined ? {} : { [permit]: said });
        const applies = resolvePermissions({
          course: r(course),
          person: r(person),
          board: r(board),
          page: r(page),
        });
        expect([permit, course, person, board, page, applies[permit], applies.why[permit]]).toEqual(
          [permit, course, person, board, page, may, level],
        );
      }
  });

  const trust = fc.option(fc.constantFrom(...Trust.options), { nil: undefined });
  const said = fc.option(fc.boolean(), { nil: undefined });
  const rules = fc.record({
    trust,
    turn: said,
    addPages: said,
    runMedia: said,
    chatAll: said,
    chatTutor: said,
  });

  it('is never more than the page and the board have', () => {
    fc.assert(
      fc.property(rules, rules, rules, rules, (course, person, board, page) => {
        const applies = resolvePermissions({ course, person, board, page });
        for (const limit of [board.trust, page.trust])
          if (limit) expect(lesserTrust(applies.trust, limit)).toBe(applies.trust);
        for (const permit of PERMITS)
          if (board[permit] === false || page[permit] === false)
            expect(applies[permit]).toBeFalse();
      }),
    );
  });

  it('says why, in a sentence for whom it concerns', () => {
    const why = (some: Partial<Layers>) => whyTrust(resolvePermissions(layers(some)));
    expect(why({ page: { trust: 'view' }, person: { trust: 'write' } })).toBe(
      'There is no writing on this page just now.',
    );
    expect(why({ board: { trust: 'view' }, person: { trust: 'write' } })).toBe(
      'There is no writing on this board just now.',
    );
    expect(why({})).toBe('You are watching just now.');
    expect(why({ person: { trust: 'hands' }, page: { trust: 'write' } })).toBe(
      'What lies on this page stays where it is.',
    );
    expect(why({ person: { trust: 'hands' } })).toBeNull();
    const not = (permit: Permit, some: Partial<Layers>) =>
      whyNot(permit, resolvePermissions(layers(some)));
    expect(not('turn', { person: { turn: false } })).toBe(
      'Just now, only your tutor turns pages for you.',
    );
    expect(not('runMedia', { page: { runMedia: false } })).toBe(
      'Only the tutor runs sounds and films on this page.',
    );
    expect(not('chatAll', { course: { chatAll: false } })).toBe(
      'Only the tutor writes to all in this class.',
    );
    expect(not('addPages', {})).toBe('Only the tutor adds pages in this class.');
    expect(not('turn', {})).toBeNull();
  });

  it('can be unsaid', () => {
    expect(withRules({ turn: false, trust: 'write' }, { turn: null, chatAll: false })).toEqual({
      trust: 'write',
      chatAll: false,
    });
  });
});
