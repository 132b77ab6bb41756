/**
 * Keys that are pressed together, as they are written: `Ctrl+Z`, `Shift+P`, `PageUp`, `?`. The last is a character in
 * its basic form, or a key's name in the DOM (W3C, UI Events KeyboardEvent key Values). `Ctrl` is Command on a Mac.
 */
export type Chord = string;

type Pressed = Pick<
  KeyboardEvent,
  'key' | 'code' | 'ctrlKey' | 'metaKey' | 'altKey' | 'shiftKey' | 'getModifierState'
>;

const MODIFIERS = ['Ctrl', 'Alt', 'Shift'] as const;

interface Parts {
  readonly key: string;
  readonly with: ReadonlySet<string>;
}

function partsOf(chord: Chord): Parts {
  const parts = chord.split('+');
  // A plus is a key, too.
  const key = parts.at(-1) === '' ? '+' : parts.at(-1)!;
  return { key, with: new Set(parts.filter((part) => MODIFIERS.some((name) => name === part))) };
}

const isLetter = (key: string): boolean => /^\p{L}$/u.test(key);

/**
 * The key without what Shift makes of it. Where a keyboard writes other letters than Latin ones, what stands at the same
 * place of a Latin one: who switches to Greek for a word keeps the keys of the tools.
 */
function keyOf({ key, code }: Pressed): string {
  if ([...key].length > 1) return key;
  const latin = /^Key([A-Z])$/.exec(code)?.[1];
  if (latin && isLetter(key) && !/^[a-z]$/i.test(key)) return latin.toLowerCase();
  return key.toLowerCase();
}

/** Whether Alt is held, and not only to write a sign that the keyboard has there. */
function hasAlt(event: Pressed): boolean {
  return event.altKey && !event.getModifierState('AltGraph');
}

function hasCtrl(event: Pressed): boolean {
  return (event.ctrlKey || event.metaKey) && !event.getModifierState('AltGraph');
}

/** Whether these keys are pressed. For a sign it doesn't matter whether the keyboard needs Shift for it. */
export function isPressed(event: Pressed, chord: Chord): boolean {
  const { key, with: held } = partsOf(chord);
  if (keyOf(event) !== (isSingleKey(key) ? key.toLowerCase() : key)) return false;
  if (hasCtrl(event) !== held.has('Ctrl') || hasAlt(event) !== held.has('Alt')) return false;
  const isSign = isSingleKey(key) && !isLetter(key);
  return isSign || event.shiftKey === held.has('Shift');
}

/** Whether it is a letter, digit or sign alone, a capital too: what speech input and a slip of the hand press. */
export function isSingle(chord: Chord): boolean {
  const { key, with: held } = partsOf(chord);
  return isSingleKey(key) && !held.has('Ctrl') && !held.has('Alt');
}

function isSingleKey(key: string): boolean {
  return [...key].length === 1;
}

/** The single key that is pressed, to be chosen for something; `null` for any other. */
export function singlePressed(event: Pressed): Chord | null {
  if (hasCtrl(event) || hasAlt(event)) return null;
  const key = keyOf(event);
  if (!isSingleKey(key) || /[\s\p{C}]/u.test(key)) return null;
  return isLetter(key) && event.shiftKey ? `Shift+${key.toUpperCase()}` : key;
}

/** Whether two are the same keys. */
export function isSame(one: Chord, other: Chord): boolean {
  return one.toLowerCase() === other.toLowerCase();
}

const NAMES: Readonly<Record<string, string>> = {
  PageUp: 'Page Up',
  PageDown: 'Page Down',
  ArrowUp: '↑',
  ArrowDown: '↓',
  ArrowLeft: '←',
  ArrowRight: '→',
  Escape: 'Esc',
  '-': '−',
};

/** As it stands on the keys, for example “Ctrl+Shift+Z”. */
export function formatChord(chord: Chord, isMac = onMac()): string {
  const { key, with: held } = partsOf(chord);
  const names = MODIFIERS.filter((name) => held.has(name)).map((name) =>
    isMac && name === 'Ctrl' ? 'Cmd' : isMac && name === 'Alt' ? 'Option' : name,
  );
  return [...names, NAMES[key] ?? (isSingleKey(key) ? key.toUpperCase() : key)].join('+');
}

/** For `aria-keyshortcuts` (WAI-ARIA 1.2): a plus is named there, and Command is Meta. */
export function ariaChord(chord: Chord, isMac = onMac()): string {
  const { key, with: held } = partsOf(chord);
  const names = MODIFIERS.filter((name) => held.has(name)).map((name) =>
    name === 'Ctrl' ? (isMac ? 'Meta' : 'Control') : name,
  );
  return [...names, key === '+' ? 'Plus' : isLetter(key) ? key.toUpperCase() : key].join('+');
}

function onMac(): boolean {
  return /^Mac|^iP/.test(navigator.platform);
}
