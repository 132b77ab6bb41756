import type { Id } from '@cuaderno/core';
import type { Course } from '../courses/service.js';
import type { Diary } from './past-weeks.js';

/** Where the diaries are kept: boards of the three courses. */
interface Places {
  readonly sky: readonly [Course, Id];
  readonly tides: readonly [Course, Id];
  readonly cello: readonly [Course, Id];
}

/** Seven weeks of the sky, whose eighth is last week's star chart, and eight of the others, up to last week. */
export function diariesOf({ sky, tides, cello }: Places): Diary[] {
  return [
    {
      ...{ course: sky[0], board: sky[1], students: ['Ida', 'Jonas', 'Noor'] },
      ...{ weekday: 2, hour: 16, minute: 30, last: 1 },
      weeks: [
        {
          page: 'The Moon, night by night',
          summary: 'We sorted the shapes of the Moon and found which half the Sun lights.',
          until: 'Draw the Moon at the same hour on three evenings.',
        },
        {
          page: 'Where the Sun sets',
          summary: 'The Sun sets further south each week. We marked it on the window.',
          until: 'Mark the place again on Sunday.',
          said: 'Ours sets behind the church!',
        },
        {
          page: 'Planets are not stars',
          summary: 'Planets wander, stars keep their places. Jonas found Jupiter on the chart.',
          until: 'Look for a star that doesn’t twinkle.',
          away: ['Noor'],
        },
        {
          page: 'How far is far',
          summary: 'A walk through the solar system, a step for each ten million kilometres.',
          until: 'Pace out the Earth and the Sun with somebody at home.',
        },
        {
          page: 'North without a compass',
          summary: 'Two stars of the Great Bear point to the Pole Star, and that to the north.',
          until: 'Find the Pole Star from your own door.',
          said: 'Mine is above the chimney.',
        },
        {
          page: 'A clock in the sky',
          summary: 'The Great Bear turns once a day. We read the time from it, to half an hour.',
          until: 'Draw the Bear at seven and at nine.',
          away: ['Jonas'],
        },
        {
          page: 'Shooting stars',
          summary: 'Dust as small as sand burns up there. We counted from a film of one night.',
          until: 'Ask for ten minutes outside on the seventeenth.',
        },
      ],
    },
    {
      ...{ course: tides[0], board: tides[1], students: ['Sigrid'] },
      ...{ weekday: 4, hour: 17, minute: 30, last: 0 },
      weeks: [
        {
          page: 'Twice a day',
          summary: 'High water comes some 50 minutes later each day. Sigrid saw why: the Moon.',
          until: 'Write down high water on Saturday and Sunday.',
        },
        {
          page: 'Reading a table',
          summary: 'Times, heights, and the zone they are in. We turned two tables to summer time.',
          until: 'Which day of the week has the highest water?',
        },
        {
          page: 'Springs and neaps',
          summary: 'Spring tides at new and full moon, neaps between. Sigrid drew both.',
          until: 'Put the moons into your calendar.',
          said: 'So the neap is when they pull across?',
        },
        {
          page: 'The rule of twelfths',
          summary: 'Twelve parts in six hours: 1, 2, 3, 3, 2, 1. Sigrid found the height at three.',
          until: 'The height at Solvik on Friday at four.',
        },
        {
          page: 'Depth under the boat',
          summary: 'Charted depth and height of tide together, against the draught of a boat.',
          until: 'When may a boat of 1.6 metres cross the bar?',
        },
        {
          page: 'Streams',
          summary: 'The stream doesn’t turn at high water. We read arrows from the atlas.',
          until: 'Draw the stream an hour before and after.',
        },
        {
          page: 'A storm on top',
          summary: 'Wind and pressure add to the table: a hectopascal is a centimetre.',
          until: 'Compare the gauge with the table on a windy day.',
          said: 'It was 30 cm more on Monday.',
        },
        {
          page: 'A plan for a day out',
          summary: 'Sigrid planned a crossing by herself, with an hour to spare.',
          until: 'Plan one for a Saturday in December.',
        },
      ],
    },
    {
      ...{ course: cello[0], board: cello[1], students: ['Mika'] },
      ...{ weekday: 5, hour: 15, minute: 15, last: 0 },
      weeks: [
        {
          page: 'Open strings, long bows',
          summary: 'Slow bows from frog to tip. The sound stayed even for eight beats.',
          until: 'Ten long bows a day, with the clock.',
        },
        {
          page: 'G major, one octave',
          summary: 'The scale in first position, with the third finger where it belongs.',
          until: 'The scale in halves, then in quarters.',
        },
        {
          page: 'Crossing strings',
          summary: 'The arm leads, the wrist follows. We crossed without a bump.',
          until: 'The crossing study, twice slowly.',
          said: 'My arm is tired!',
        },
        {
          page: 'Two bowings',
          summary: 'Two notes a bow, then four. The last line still hurries.',
          until: 'The last line alone, with the metronome at 60.',
        },
        {
          page: 'Extensions',
          summary: 'F sharp on the C string: the hand opens, the thumb stays.',
          until: 'Find F and F sharp with eyes shut.',
        },
        {
          page: 'Playing softly',
          summary: 'Less weight, the same speed. The soft half was the best of the piece.',
          until: 'The piece once loud, once soft.',
        },
        {
          page: 'The second half of the piece',
          summary: 'We read it together, then Mika played it to the end.',
          until: 'The second half every day, bars 9 to 12 twice.',
        },
        {
          page: 'Ready to play for others',
          summary: 'The whole piece without stopping. One breath before the first note.',
          until: 'Play it for somebody at home.',
        },
      ],
    },
  ];
}
