import type { Caption, ClientMessage } from '@cuaderno/core/features';
import { CaptionsState } from './captions-state';

describe('captions, as a window knows them', () => {
  let sent: ClientMessage[];
  let isThere: boolean;
  let state: CaptionsState;
  const line = (id: string, text: string, from: number): Caption => ({
    ...{ id, text, from },
    by: 'ana',
    at: from + 1,
  });
  const texts = (): string[] => state.lines().map(({ text }) => text);

  beforeEach(() => {
    sent = [];
    isThere = true;
    state = new CaptionsState((message) => {
      if (isThere) sent.push(message);
      return isThere;
    });
  });

  it('are in the order in which they were said, and corrected in their place', () => {
    state.handlers['caption.typing']({ kind: 'caption.typing', text: 'Low wat' });
    expect(state.typing()).toBe('Low wat');
    state.handlers.caption({ kind: 'caption', line: line('b', 'It turns.', 20) });
    expect(state.typing()).toBe('');
    state.handlers.captions({
      ...{ kind: 'captions', writer: 'ana' },
      lines: [line('a', 'Low water.', 10), line('b', 'It turns.', 20)],
    });
    expect(texts()).toEqual(['Low water.', 'It turns.']);
    state.handlers.caption({ kind: 'caption', line: line('a', 'High water.', 10) });
    expect(texts()).toEqual(['High water.', 'It turns.']);
    state.clear();
    expect([texts(), state.writer()]).toEqual([[], null]);
  });

  it('that were typed while the line was away go when it is back, until they are known to be kept', () => {
    isThere = false;
    state.write('The ebb.');
    const [mine] = state.unconfirmed();
    isThere = true;
    state.begin();
    expect(sent).toEqual([{ kind: 'caption', id: mine!.id, text: 'The ebb.' }]);
    state.handlers.caption({ kind: 'caption', line: line(mine!.id, 'The ebb.', 5) });
    expect(state.unconfirmed()).toEqual([]);
    state.begin();
    expect(sent.length).toBe(1);
  });
});
