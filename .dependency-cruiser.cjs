/*
 * Imports go one way. No two folders import each other, by value or by type, and core knows no other package;
 * `npm run imports` checks it, and `docs/imports.md` shows it.
 */

/** Rooms of the web, each knowing those before it; the shell and the routes know all. */
const ROOMS = [
  'browser',
  'ui',
  'api',
  'live',
  'materials',
  'board',
  'records',
  'lesson',
  'courses',
];

module.exports = {
  forbidden: [
    {
      name: 'no-folder-circle',
      comment:
        'Two folders that import each other are one idea in two places, or need a third below them.',
      severity: 'error',
      scope: 'folder',
      from: { path: '^(packages/[^/]+/src|apps/web/src/app)/[^/]+' },
      to: { circular: true },
    },
    {
      name: 'no-domain-circle',
      comment: 'A domain of the server knows those below it, and none that knows it.',
      severity: 'error',
      scope: 'folder',
      from: { path: '^apps/server/src/[^/]+$' },
      to: { circular: true, viaOnly: { path: '^apps/server/src/[^/]+$' } },
    },
    ...ROOMS.map((room, at) => ({
      name: `${room}-knows-none-above`,
      comment: 'What a room shows may be shown in those above it; it knows none of them.',
      severity: 'error',
      from: { path: `^apps/web/src/app/${room}/` },
      to: {
        path: `^apps/web/src/app/(${[...ROOMS.slice(at + 1), 'account', 'shell'].join('|')})/`,
      },
    })),
    {
      name: 'account-is-by-itself',
      severity: 'error',
      from: { path: '^apps/web/src/app/account/' },
      to: { path: '^apps/web/src/app/(live|materials|board|records|lesson|courses|shell)/' },
    },
    {
      name: 'web-knows-no-server',
      severity: 'error',
      from: { path: '^apps/web/src' },
      to: { path: '^(apps/server|bench|e2e)/' },
    },
    {
      name: 'core-knows-nobody',
      comment: 'The heart is used by all and uses none of them.',
      severity: 'error',
      from: { path: '^packages/core/src' },
      to: { path: '^(packages/(contract|formats)|apps|bench|e2e)/' },
    },
    {
      name: 'contract-knows-core-alone',
      comment: 'What both ends of the line say is of neither.',
      severity: 'error',
      from: { path: '^packages/contract/src' },
      to: { path: '^(packages/formats|apps|bench|e2e)/' },
    },
    {
      name: 'formats-know-core-and-contract',
      severity: 'error',
      from: { path: '^packages/formats/src' },
      to: { path: '^(apps|bench|e2e)/' },
    },
    {
      name: 'kinds-know-no-boards',
      comment: 'Boards are made of items; what a kind of item is, it is without a board.',
      severity: 'error',
      from: {
        path: '^packages/core/src/(kinds|display|geometry|text|ink|id|order)/',
        pathNot: '\\.spec\\.ts$',
      },
      to: { path: '^packages/core/src/(board|ops|log|viewers|permissions|wire|edits)/' },
    },
  ],
  options: {
    tsPreCompilationDeps: true,
    exclude: { path: '(\\.spec\\.ts$|/testing/|/dist/)' },
    doNotFollow: { path: 'node_modules' },
  },
};
