import { connect } from 'node:net';
import { House } from '../testing/harness.js';

describe('a body that doesn’t come', () => {
  let house: House;

  beforeEach(async () => {
    house = await House.open('slow-bodies', { bodyPatienceMs: 300 });
  });
  afterEach(() => house.close());

  /** What the server does with a request of which not all comes, and how long that takes, in ms. */
  const send = (
    head: string,
    drip: string,
    times = Infinity,
  ): Promise<{ said: string; ms: number }> =>
    new Promise((resolve) => {
      const begun = performance.now();
      let said = '';
      const socket = connect(house.port, '127.0.0.1', () => {
        socket.write(
          `${head}\r\nhost: 127.0.0.1:${house.port}\r\ncookie: ${house.tutor.cookie}\r\n\r\n`,
        );
        let left = times;
        const timer = setInterval(() => left-- > 0 && socket.write(drip), 40);
        socket.on('close', () => {
          clearInterval(timer);
          resolve({ said, ms: performance.now() - begun });
        });
      });
      socket.on('data', (part) => (said += part.toString()));
      socket.on('error', () => undefined);
    });

  it('ends, whether nothing comes or a letter now and then', async () => {
    const upload = `POST /api/courses/${house.course.id}/boards/import?name=a.pdf HTTP/1.1\r\ncontent-type: application/octet-stream\r\ncontent-length: 5000000`;
    for (const drip of ['', 'x']) {
      const { ms } = await send(upload, drip);
      expect(ms).toBeLessThan(5000);
    }
    const join =
      'POST /api/join/find HTTP/1.1\r\ncontent-type: application/json\r\ncontent-length: 5000';
    expect((await send(join, ' ')).ms).toBeLessThan(5000);
  });

  it('isn’t one that comes slowly but comes', async () => {
    const body = 'x'.repeat(400_000);
    const { said } = await send(
      `POST /api/courses/${house.course.id}/boards/import?name=a.pdf HTTP/1.1\r\ncontent-type: application/octet-stream\r\nconnection: close\r\ncontent-length: ${body.length}`,
      body.slice(0, 20_000),
      20,
    );
    expect(said).toContain('file-not-pdf');
  });
});
