import { TestBed } from '@angular/core/testing';
import type { DoorState } from '@cuaderno/core/permissions';
import { PretendServer } from '../../live/pretend-socket';
import { problem, Screen } from '../../testing/screen';
import { DIAL, DoorScreen } from './door';

const DOOR = { course: 'Tides', tutor: 'Maren', name: 'Ida' };

describe('the door, from outside', () => {
  let server: PretendServer;
  // Anyone who came by a link before is led back by it.
  beforeEach(() => localStorage.clear());

  const come = async (answers = {}): Promise<Screen<DoorScreen>> => {
    server = new PretendServer();
    TestBed.overrideProvider(DIAL, { useValue: server.dial });
    const screen = await Screen.show(DoorScreen, {}, { 'GET /door': DOOR, ...answers });
    server.line.open();
    await isTold(screen, 'waiting');
    return screen;
  };
  const isTold = async (screen: Screen<DoorScreen>, state: DoorState): Promise<void> => {
    server.line.say({ kind: 'door.state', state });
    await screen.settles();
  };

  it('says whose it is and that the tutor knows, and leads in when it is opened', async () => {
    const screen = await come();
    expect(screen.text).toContain('Tides with Maren');
    expect(screen.text).toContain('You are at the door');
    expect(screen.text).toContain('You are here as Ida.');
    expect(screen.address).toBeNull();
    await isTold(screen, 'in');
    expect(screen.address).toBe('/lesson');
  });

  it('can be knocked at again after “not now” and after being sent out, not by who is kept out', async () => {
    const screen = await come({ 'POST /door/knock': { state: 'waiting' } });
    expect(screen.button('Knock once more')).toBeUndefined();
    for (const state of ['not-now', 'out'] as const) {
      await isTold(screen, state);
      await screen.press('Knock once more');
      expect(screen.text).toContain('You are at the door');
    }
    await isTold(screen, 'barred');
    expect(screen.text).toContain('You can come to the next one');
    expect(screen.button('Knock once more')).toBeUndefined();
  });

  it('says in plain words why knocking didn’t help', async () => {
    const screen = await come({ 'POST /door/knock': problem('kept-out', 'You were sent out.') });
    await isTold(screen, 'out');
    await screen.press('Knock once more');
    expect(screen.element.querySelector('[role=alert]')!.textContent).toContain(
      'You were sent out.',
    );
  });

  it('stays while the line is away', async () => {
    const screen = await come();
    server.line.end();
    await screen.settles();
    expect(screen.text).toContain('Connection lost for a moment');
    expect(screen.text).toContain('You are at the door');
  });

  it('ends with the lesson', async () => {
    const screen = await come();
    server.line.end(4410);
    await screen.settles();
    expect(screen.text).toContain('The lesson is over');
    expect(screen.link('To the next lesson')).toBe('/join');
  });
});
