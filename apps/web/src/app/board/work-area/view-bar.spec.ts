import { signal } from '@angular/core';
import { FULL_SIZE } from '../stage/camera';
import { Screen } from '../../testing/screen';
import { ViewBar } from './view-bar';

describe('how much of the page is seen', () => {
  const zoom = signal(FULL_SIZE);
  let asked: string[];
  let screen: Screen<ViewBar>;

  beforeEach(async () => {
    zoom.set(FULL_SIZE);
    asked = [];
    const view = {
      zoom,
      zoomBy: (by: number) => asked.push(by > 1 ? 'nearer' : 'farther'),
      zoomTo: (to: number) => asked.push(to === FULL_SIZE ? 'full size' : String(to)),
      fitWidth: () => asked.push('width'),
      fitPage: () => asked.push('page'),
    };
    const stage = { view };
    screen = await Screen.show(ViewBar, { stage }, {});
  });

  it('is told in percent of full size, and chosen by buttons', async () => {
    expect(screen.text).toContain('100 %');
    zoom.set(FULL_SIZE / 2);
    await screen.settles();
    expect(screen.text).toContain('50 %');
    for (const name of ['Zoom in', 'Zoom out', '50 %', 'As wide as the window', 'Whole page'])
      await screen.press(name);
    expect(asked).toEqual(['nearer', 'farther', 'full size', 'width', 'page']);
  });

  it('follows another window where this one does: only nearer and farther are left', async () => {
    screen.fixture.componentRef.setInput('isLed', true);
    await screen.settles();
    expect(screen.button('Whole page')).toBeUndefined();
    await screen.press('Zoom in');
    expect(asked).toEqual(['nearer']);
  });
});
