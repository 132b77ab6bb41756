import { chatText } from './chat-text.js';

describe('the chat as text', () => {
  const student = { role: 'student' as const, spans: [] };
  const people = [
    { id: 'maren', name: 'Maren', nameOrdinal: 1, ...student },
    { id: 'ida', name: 'Ida', nameOrdinal: 1, ...student },
    { id: 'ida_2', name: 'Ida', nameOrdinal: 2, ...student },
  ];
  const record = {
    courseName: 'Tides',
    title: 'Ebb',
    openedAt: Date.UTC(2026, 9, 22, 15, 26),
    closedAt: 0,
  };

  it('says who wrote what to whom, by the clock of the person who reads it', () => {
    const said = (by: string, to: string, text: string, minute: number) => ({
      ...{ by, to, text },
      at: record.openedAt + minute * 60_000,
    });
    const chat = [
      said('ida', 'all', 'Is it ebb?', 1),
      said('ida_2', 'tutor', 'I am lost', 2),
      said('maren', 'ida_2', 'Look at\nthe table', 3),
    ];
    expect(chatText({ chat, gestures: [] }, { record, people, zone: 'Europe/Oslo' })).toBe(
      [
        'Tides: Ebb',
        'Thursday 22 October 2026, times in Europe/Oslo',
        '',
        '17:27  Ida: Is it ebb?',
        '17:28  Ida (2) to the tutor: I am lost',
        '17:29  Maren to Ida (2): Look at',
        '       the table',
        '',
      ].join('\n'),
    );
  });

  it('says that there was none', () => {
    expect(chatText({ chat: [], gestures: [] }, { record, people, zone: 'UTC' })).toContain(
      'Nobody wrote in the chat.',
    );
  });
});
