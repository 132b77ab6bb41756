/** What can go wrong with a message of a lesson, and with the boards that it is about: see `catalogue.ts`. */
export const LIVE_PROBLEMS = {
  'message-not-readable': [
    400,
    'A message could not be read.',
    'Reload the page; what you wrote is kept.',
  ],
  'message-wrong-shape': [
    422,
    'A message was not as expected.',
    'Reload the page; what you wrote is kept.',
  ],
  'message-too-large': [413, 'A message was too large.', 'Draw in shorter lines.'],
  'message-too-many': [
    429,
    'Messages come too fast.',
    'Wait a moment; what you wrote is kept and sent again.',
  ],
  'other-protocol': [
    426,
    'This page is of an older Cuaderno.',
    'Reload it; what you wrote is kept.',
  ],
  'window-gone': [
    404,
    'That window isn’t in the lesson any more.',
    'See who is here, and try again.',
  ],
  'tutor-only': [403, 'Only the tutor can do that.', 'Ask your tutor to do it.'],
  'watches-only': [
    403,
    'You are watching this lesson.',
    'Ask the tutor to let you in as a helper if you are to take part.',
  ],
  'media-too-many': [429, 'That was switched too often.', 'Wait a moment, then try again.'],
  'chat-text': [400, 'That message can’t be sent.', 'Write a few words: at most 2000 letters.'],
  'chat-off': [403, 'The chat is closed to you just now.', 'Raise your hand instead.'],
  'chat-too-fast': [429, 'That is a lot at once.', 'Wait a moment, then send it again.'],
  'chat-not-kept': [503, 'That message could not be kept.', 'Send it again in a moment.'],
  'captions-not-yours': [
    403,
    'You don’t type the captions just now.',
    'Your tutor says who does. Copy what you typed, if it is wanted.',
  ],
  'caption-not-kept': [
    503,
    'A line of captions could not be kept.',
    'Send it once more in a moment: it has at most 200 letters.',
  ],
  'board-not-here': [
    404,
    'That board isn’t in this lesson.',
    'Choose one of the boards of the course, or copy it into the course first.',
  ],
  'board-not-open': [
    409,
    'This window hasn’t that board open.',
    'Open the board again; what you wrote is kept.',
  ],
  'boards-full': [
    409,
    'This window has too many boards open.',
    'Reload the page; what you wrote is kept.',
  ],
  'board-withdrawn': [
    410,
    'The class doesn’t have that board any more.',
    'What you wrote on it is kept. Go on with the board that your tutor shows.',
  ],
  'last-board': [409, 'The class keeps at least one board.', 'Show them another board first.'],
  'lesson-boards-full': [
    409,
    'A lesson has at most 40 boards.',
    'Go on with one of them, or move its pages to another board.',
  ],
  refused: [403, 'That could not be accepted.', 'Ask your tutor.'],
} as const satisfies Record<string, readonly [status: number, title: string, detail: string]>;
