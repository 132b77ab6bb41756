import { newId } from '@cuaderno/core/id';
import type { PlacedItem } from '@cuaderno/core/board';
import { Screen } from '../../testing/screen';
import { SelectionActions } from './selection-actions';

const box: PlacedItem = {
  ...{ id: newId(), kind: 'shape', shape: 'box', fill: null, order: 'a0', layer: 'ink' },
  ...{ frame: { x: 0, y: 0, width: 90, height: 40, turn: 0 }, by: newId(), at: 0, lesson: null },
  ...{ outline: { colour: '#c22f2f', width: 1.2 }, removed: null },
};

describe('what can be done with what is chosen', () => {
  async function labels(arranges: boolean): Promise<string[]> {
    const screen = await Screen.show(SelectionActions, { items: [box], arranges }, {});
    return [...screen.element.querySelectorAll('button')].flatMap(
      (button) => button.getAttribute('aria-label') ?? [],
    );
  }
  const ANYONE = ['Duplicate', 'Remove', 'Copy as a picture', 'Move left', 'Turn right'];

  it('is offered once each to a tutor, in the bar or behind “Arrange …”', async () => {
    const all = await labels(true);
    expect(new Set(all).size).toBe(all.length);
    expect(all).toEqual(jasmine.arrayContaining([...ANYONE, 'Fix in place', 'Put at the back']));
  });

  it('is less for a student', async () => {
    const all = await labels(false);
    expect(new Set(all).size).toBe(all.length);
    expect(all).toEqual(jasmine.arrayContaining(ANYONE));
    expect(all).not.toContain('Fix in place');
  });
});
