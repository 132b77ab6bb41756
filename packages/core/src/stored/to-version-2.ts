import type { UpgradeStep } from './step.js';

/*
 * The first version said `held` of what is hidden from students, `margin` of a page's private notes, `look` of students who
 * view only and of the mark that asks for attention, and `nth` of which of those of one name somebody is.
 */

type Fields = Readonly<Record<string, unknown>>;

function isFields(value: unknown): value is Fields {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}

/** The same with other names for some of its fields. */
function renamed(value: Fields, names: Readonly<Record<string, string>>): Fields {
  return Object.fromEntries(
    Object.entries(value).map(([key, one]) => [Object.hasOwn(names, key) ? names[key] : key, one]),
  );
}

function rules(value: unknown): unknown {
  return isFields(value) && value['trust'] === 'look' ? { ...value, trust: 'view' } : value;
}

function item(value: unknown): unknown {
  if (!isFields(value)) return value;
  const now = renamed(value, { held: 'hidden' });
  return now['mark'] === 'look' ? { ...now, mark: 'attention' } : now;
}

function page(value: unknown): unknown {
  if (!isFields(value)) return value;
  const now = renamed(value, { held: 'hidden', margin: 'privateNotes' });
  return 'rules' in now ? { ...now, rules: rules(now['rules']) } : now;
}

/** What a change makes of something, and what that was. */
function both(op: Fields, change: (value: unknown) => unknown): Fields {
  return { ...op, to: change(op['to']), from: change(op['from']) };
}

function operation(op: unknown): unknown {
  if (!isFields(op)) return op;
  switch (op['kind']) {
    case 'item.add':
      return { ...op, item: item(op['item']) };
    case 'item.change':
      return both(op, item);
    case 'pages.add':
      return Array.isArray(op['pages']) ? { ...op, pages: op['pages'].map(page) } : op;
    case 'page.change':
      return both(op, page);
    case 'board.rules':
      return both(op, rules);
    default:
      return op;
  }
}

function writer(value: unknown): unknown {
  return isFields(value) ? renamed(value, { nth: 'nameOrdinal' }) : value;
}

export const toVersion2: UpgradeStep = { operation, item, page, writer };
