import { readConfig } from '../../../config.js';
import { IceServers } from './ice-servers.js';

describe('servers by which windows find one another', () => {
  const TURN = 'turn:turn.example.org:3478?transport=udp';
  const SECRET = 'a-long-shared-secret';

  it('are those of the settings, with a name and a password for each person', () => {
    const { ice } = readConfig(
      {
        CUADERNO_STUN: 'stun:a.example.org:3478, stun:[2001:db8::2]',
        CUADERNO_TURN: TURN,
        CUADERNO_TURN_SECRET: SECRET,
      },
      null,
    );
    const [stun, turn] = new IceServers(ice, () => 1_000_000_500).for('p');
    expect(stun).toEqual({ urls: ['stun:a.example.org:3478', 'stun:[2001:db8::2]'] });
    // Made outside: printf 1043200:p | openssl dgst -sha1 -hmac a-long-shared-secret -binary | base64
    expect(turn).toEqual({
      urls: [TURN],
      username: '1043200:p',
      credential: 'lqcPb4C9Rh5zWe+/zixnNjQEwmY=',
    });
    expect(new IceServers(readConfig({}, null).ice).for('p')).toEqual([]);
  });

  it('that are none are named as the server starts', () => {
    expect(() => readConfig({ CUADERNO_STUN: 'stun.example.org' }, null)).toThrowError(
      /CUADERNO_STUN.*stun:stun\.example\.org/,
    );
    expect(() => readConfig({ CUADERNO_TURN: 'http://turn' }, null)).toThrowError(/CUADERNO_TURN/);
    expect(() => readConfig({ CUADERNO_TURN: TURN }, null)).toThrowError(/CUADERNO_TURN_SECRET/);
    expect(() =>
      readConfig({ CUADERNO_TURN: TURN, CUADERNO_TURN_SECRET: 'short' }, null),
    ).toThrowError(/CUADERNO_TURN_SECRET/);
  });
});
