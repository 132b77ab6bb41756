/* The reader of formulas has parts that were made for Node.js, and say `global` in browsers, too. */
const scope = globalThis as { global?: unknown };
scope.global ??= globalThis;
