import { LiveLink } from './live-link';
import type { LinkEvent } from './live-link';
import { PretendServer } from './pretend-socket';

describe('the line to the server', () => {
  let server: PretendServer;
  let link: LiveLink;
  let told: LinkEvent[];
  let now: number;

  beforeEach(() => {
    jasmine.clock().install();
    now = 1000;
    spyOn(performance, 'now').and.callFake(() => now);
    spyOn(Math, 'random').and.returnValue(0.5);
    server = new PretendServer();
    told = [];
    link = new LiveLink('/live/lesson', server.dial);
    link.events.subscribe((event) => told.push(event));
  });

  afterEach(() => {
    link.close();
    jasmine.clock().uninstall();
  });

  /** Lets so many ms pass, in steps that timers can follow. */
  function pass(ms: number): void {
    for (let left = ms; left > 0; left -= 100) {
      now += Math.min(100, left);
      jasmine.clock().tick(Math.min(100, left));
    }
  }

  it('goes to this origin, and says so when it is open', () => {
    expect(server.line.url.href).toBe(`ws://${location.host}/live/lesson`);
    expect(link.send({ kind: 'ping', n: 1 })).toBeFalse();
    server.line.open();
    expect(told).toEqual([{ kind: 'open' }]);
    expect(link.send({ kind: 'ping', n: 1 })).toBeTrue();
    expect(server.line.heard).toEqual([{ kind: 'ping', n: 1 }]);
  });

  it('tries again after a break, at first soon, then less often, and never gives up', () => {
    const waits: number[] = [];
    for (let i = 0; i < 8; i++) {
      server.line.end();
      const before = server.lines.length;
      const from = now;
      while (server.lines.length === before) pass(100);
      waits.push(now - from);
    }
    expect(waits).toEqual([200, 400, 800, 1600, 3200, 4000, 4000, 4000]);
    server.line.open();
    server.line.say({ kind: 'over', at: 1 });
    server.line.end();
    pass(200);
    expect(server.lines.length).toBe(10);
  });

  it('tries at once when the machine is back on its network', () => {
    for (let i = 0; i < 5; i++) {
      server.line.end();
      pass(5000);
    }
    server.line.end();
    const before = server.lines.length;
    dispatchEvent(new Event('online'));
    expect(server.lines.length).toBe(before + 1);
  });

  it('ends for good where the server says why', () => {
    server.line.open();
    server.line.end(4410);
    pass(60_000);
    dispatchEvent(new Event('online'));
    expect(server.lines.length).toBe(1);
    expect(told.at(-1)).toEqual({ kind: 'ended', code: 4410 });
  });

  it('notices a line that is dead without saying so', () => {
    server.line.open();
    pass(8000);
    expect(server.line.of('ping').length).toBeGreaterThan(5);
    server.line.say({ kind: 'pong', n: 0 });
    pass(8000);
    expect(server.lines.length).toBe(1);
    pass(3000);
    expect(told.at(-1)).toEqual({ kind: 'away' });
    expect(server.lines.length).toBe(2);
  });

  it('says within two seconds that nothing is heard, and when something is again', () => {
    server.line.open();
    server.line.say({ kind: 'over', at: 1 });
    const quiet = (): boolean[] => told.flatMap((one) => (one.kind === 'quiet' ? [one.is] : []));
    pass(1700);
    expect(quiet()).toEqual([]);
    pass(300);
    expect(quiet()).toEqual([true]);
    server.line.say({ kind: 'pong', n: 0 });
    expect(quiet()).toEqual([true, false]);
    // Where others write, nobody has to be asked.
    const asked = server.line.of('ping').length;
    for (let i = 0; i < 30; i++) {
      pass(100);
      server.line.say({ kind: 'over', at: i });
    }
    expect(server.line.of('ping').length).toBe(asked);
    dispatchEvent(new Event('offline'));
    expect(quiet()).toEqual([true, false, true]);
  });

  it('waits longer for an answer on a slow line, and says nothing where this machine was busy', () => {
    server.line.open();
    const quiet = (): number => told.filter(({ kind }) => kind === 'quiet').length;
    for (let i = 0; i < 8; i++) {
      // Each answer takes a second and a half.
      const asked = server.line.of('ping').length;
      while (server.line.of('ping').length === asked) pass(100);
      const { n } = server.line.of('ping').at(-1)!;
      pass(1500);
      server.line.say({ kind: 'pong', n });
    }
    const before = quiet();
    pass(2500);
    expect(quiet()).toBe(before);
    server.line.say({ kind: 'pong', n: server.line.of('ping').at(-1)!.n });
    // Five seconds in which nothing was done here, nor read.
    now += 5000;
    jasmine.clock().tick(250);
    expect(quiet()).toBe(before);
    expect(server.lines.length).toBe(1);
  });

  it('does not hear an old line any more once it has dialled anew', () => {
    server.line.open();
    link.reconnect();
    const [old] = server.lines;
    pass(1000);
    const count = server.lines.length;
    old!.end();
    pass(5000);
    expect(server.lines.length).toBe(count);
  });

  it('is silent once it was closed', () => {
    server.line.open();
    link.close();
    server.line.end();
    pass(10_000);
    expect(server.lines.length).toBe(1);
  });
});
