import { LIVE_PROBLEMS } from './live-problems.js';

/**
 * Everything that can go wrong for a person, in one place: what happened (`title`) and what to do
 * next (`detail`), in plain words. The code is what programs go by and stays the same.
 */
export const PROBLEMS = {
  ...LIVE_PROBLEMS,
  'not-found': [404, 'There is nothing here.', 'Check the address, or go back to the start.'],
  'not-signed-in': [401, 'You are not signed in.', 'Sign in and try again.'],
  'sign-in-failed': [
    401,
    'That e-mail and password don’t belong together.',
    'Check both and try again.',
  ],
  'wrong-password': [403, 'That isn’t your password.', 'Type the one that you sign in with.'],
  'reset-over': [
    410,
    'This link or code is no longer good.',
    'Ask for a new one: each is good once, for an hour.',
  ],
  'slow-down': [429, 'That was tried too often.', 'Wait a little, then try again.'],
  'set-up-done': [
    409,
    'The tutor’s account is there already.',
    'Sign in with its e-mail and password.',
  ],
  'bad-request': [
    400,
    'Something in the request is not as it should be.',
    'Check what you entered.',
  ],
  'wrong-origin': [
    403,
    'This request came from another site.',
    'Open Cuaderno itself and try again.',
  ],
  'too-large': [413, 'That is too large.', 'Send something smaller.'],
  'no-such-lesson': [
    404,
    'No open lesson has this link or code.',
    'Check each letter with your tutor, or ask for the newest link.',
  ],
  'lesson-not-open': [
    409,
    'The lesson isn’t open yet.',
    'Wait a moment: this page lets you in as soon as your tutor opens it.',
  ],
  'at-the-door': [403, 'You are at the door.', 'Wait a moment: your tutor sees that you are here.'],
  'kept-out': [
    403,
    'Your tutor has sent you out of this lesson.',
    'You can come to the next one. Until then, talk to your tutor.',
  ],
  'guest-link-used': [
    403,
    'This link was made for one guest, and somebody came by it already.',
    'Open it where it was opened first, or ask the tutor for a link of your own.',
  ],
  'course-retired': [410, 'This link is no longer in use.', 'Ask your tutor for the new one.'],
  'lesson-open': [
    409,
    'A lesson is open in this course.',
    'Close the lesson first, then retire the course.',
  ],
  'lesson-over': [410, 'This lesson is over.', 'Ask your tutor for the next one.'],
  'not-planned': [
    404,
    'No lesson is planned for then.',
    'Load the week again: it may have been moved meanwhile.',
  ],
  'series-has-days': [
    400,
    'This series came from a calendar, with days of its own.',
    'Move single dates, or end the series and plan it anew.',
  ],
  'series-over': [
    400,
    'The series would be over before it begins.',
    'Choose a last day that isn’t before the first lesson.',
  ],
  'not-a-calendar': [
    400,
    'That isn’t a calendar file.',
    'Choose a file that ends in .ics, as calendars save it.',
  ],
  'calendar-too-large': [
    413,
    'That calendar is too large.',
    'Save a part of it: a year, say, or the calendar of one course.',
  ],
  'no-such-link': [
    404,
    'This link leads nowhere.',
    'Check each letter of it, or ask the person who sent it for a new one.',
  ],
  'link-withdrawn': [410, 'This link was withdrawn.', 'Ask your tutor if you need a new one.'],
  'link-over': [410, 'This link is no longer open.', 'Ask your tutor if you need a new one.'],
  'link-until': [
    400,
    'A link can’t last until then.',
    'Choose a day from tomorrow on, within a year.',
  ],
  'look-only': [403, 'This link is for looking only.', 'Ask your tutor if you need the file.'],
  'note-amended': [
    409,
    'This was amended in another window meanwhile.',
    'Look at what is there now, and write into that.',
  ],
  'lesson-still-open': [
    409,
    'This lesson has no record yet.',
    'Add the lines to the page, or close the lesson first.',
  ],
  'lesson-running': [
    409,
    'A lesson is open in this course already.',
    'Go to that lesson, or close it first.',
  ],
  'board-in-lesson': [
    409,
    'A lesson is open on this board.',
    'Close the lesson first, then remove the board.',
  ],
  'last-pages': [
    409,
    'A board keeps at least one page.',
    'Leave a page, or remove the whole board.',
  ],
  'pass-expired': [
    401,
    'Your place in this lesson has expired.',
    'Open the join link again and enter your name.',
  ],
  'file-empty': [422, 'This file is empty.', 'Choose another, or save it once more.'],
  'file-not-pdf': [
    422,
    'This file isn’t a PDF, though its name says so.',
    'Save or export it as PDF first, then upload that.',
  ],
  'file-truncated': [
    422,
    'This PDF breaks off in the middle.',
    'Download or copy it again, then upload the whole file.',
  ],
  'file-locked': [
    422,
    'This PDF is locked with a password.',
    'Save a copy without a password, then upload that.',
  ],
  'file-broken': [
    422,
    'This PDF is damaged and can’t be read.',
    'Open it in another program and save it as a new PDF.',
  ],
  'file-too-large': [413, 'This file is too large.', 'Split it, or save it with smaller pictures.'],
  'material-unknown': [
    422,
    'This kind of file can’t go on a page.',
    'Upload a picture (PNG, JPEG, HEIC, WebP, AVIF, GIF, BMP, SVG), a sound (MP3, WAV, OGG, M4A) or a film (WebM, MP4).',
  ],
  'media-broken': [
    422,
    'This sound or film is damaged and can’t be read.',
    'Open it in another program and save it once more.',
  ],
  'media-codec': [
    422,
    'This sound or film is coded in a way that browsers can’t play.',
    'Save a film as MP4 (H.264) or WebM, a sound as MP3, and upload that.',
  ],
  'picture-broken': [
    422,
    'This picture is damaged and can’t be read.',
    'Open it in another program and save it once more.',
  ],
  'picture-heic': [
    422,
    'This is a photo in the HEIC format, of a kind that can’t be read here.',
    'Save it as JPEG, in the phone’s photo program or on a computer, and upload that.',
  ],
  'picture-tiff': [
    422,
    'This is a picture in the TIFF format, which browsers can’t show.',
    'Open it in a picture program, save it as PNG or JPEG, and upload that.',
  ],
  'picture-ico': [
    422,
    'This is an icon (ICO), which holds several small pictures.',
    'Open it in a picture program, save the largest as PNG, and upload that.',
  ],
  'picture-svgz': [
    422,
    'This file is compressed (gzip), as SVGZ drawings are.',
    'Unpack it, or save the drawing as a plain SVG, and upload that.',
  ],
  'picture-jxl': [
    422,
    'This is a picture in the JPEG XL format, which few browsers can show.',
    'Save it as PNG or JPEG, and upload that.',
  ],
  'picture-psd': [
    422,
    'This is a layered picture (PSD), which only picture programs can open.',
    'Save it as PNG or JPEG, and upload that.',
  ],
  'picture-too-large': [
    422,
    'This picture has too many pixels.',
    'Save a smaller copy, of 100 million pixels at most, and upload that.',
  ],
  'picture-unsafe': [
    422,
    'This SVG declares entities, which can hide harm.',
    'Open it in a drawing program and save it as a plain SVG or PNG.',
  ],
  'deck-broken': [
    422,
    'These slides can’t be read.',
    'Open them in the program they were made with, save them as PDF, and upload that.',
  ],
  'deck-locked': [
    422,
    'These slides are locked with a password.',
    'Save a copy without a password, then upload that.',
  ],
  'deck-too-slow': [
    422,
    'It takes too long to turn these slides into pages.',
    'Save them as PDF in the program they were made with, and upload that.',
  ],
  'deck-no-converter': [
    422,
    'Slides can’t be turned into pages here: LibreOffice is not on this machine.',
    'Save them as PDF and upload that, or have LibreOffice Impress installed.',
  ],
  'media-elsewhere': [
    422,
    'It lies outside of the slides.',
    'Upload the file itself and lay it on the page.',
  ],
  'board-damaged': [
    500,
    'This board can’t be read: the file that holds it is damaged.',
    'Restore the last backup (npm run restore), and check the disk of this machine.',
  ],
  'disk-full': [
    507,
    'The disk of this machine is full.',
    'What was confirmed is safe. Make room, then try again.',
  ],
  'zip-broken': [
    422,
    'This file is damaged or cut off.',
    'Copy or download it again, then upload the whole file.',
  ],
  'zip-unknown': [
    422,
    'This file is neither a PDF nor slides nor a board that was saved from Cuaderno.',
    'Save it as PDF, then upload that.',
  ],
  'zip-too-large': [
    422,
    'There is more in this file than can be opened at once.',
    'Save it in parts, or with smaller pictures and films.',
  ],
  'zip-unsafe': [
    422,
    'This file tries to write outside of itself, and was not opened.',
    'Ask the person who sent it for another copy.',
  ],
  'board-file-newer': [
    422,
    'This board was saved by a newer Cuaderno.',
    'Open it there, or bring this one up to date.',
  ],
  'board-file-too-much': [
    422,
    'There is more on this board than a board holds.',
    'Save a part of it, or save it without ink, and upload that.',
  ],
  'timetable-full': [
    409,
    'That is more than a timetable holds.',
    'End series and remove lessons that you don’t need any more, then plan this.',
  ],
  'timetable-crowded': [
    422,
    'There are too many lessons in that time to show them all.',
    'Look at a shorter time, or end series that you don’t need any more.',
  ],
  'file-too-slow': [
    422,
    'It takes too long to read this file.',
    'Save or print it as a new PDF, or split it, and upload that.',
  ],
  'board-file-broken': [
    422,
    'Something in this board file is not as it should be.',
    'Save the board once more where it came from, and upload that.',
  ],
  'too-many-pages': [422, 'This PDF has too many pages.', 'Split it and upload the part you need.'],
  'page-size': [
    422,
    'A page of this PDF is larger than 200 inches or smaller than a stamp.',
    'Save it with a usual page size.',
  ],
  'too-many-hand-overs': [
    422,
    'In this course 500 files are handed over already.',
    'Take back some that nobody needs any more, then hand this one over.',
  ],
  'folder-in-itself': [
    409,
    'A folder can’t be put into itself.',
    'Choose another folder to put it into.',
  ],
  'not-to-be-laid': [
    422,
    'This file can’t be laid on a page.',
    'Lay a picture, a sound or a film; make a board of a PDF, of slides or of a saved board.',
  ],
  'no-board-of-it': [
    422,
    'No board can be made of this file.',
    'Choose a PDF, slides or a saved board, or lay this file on a page.',
  ],
  'slides-coming': [
    409,
    'These slides are being made ready to look at.',
    'Wait a moment: they appear by themselves.',
  ],
  'slides-not-shown': [
    422,
    'These slides can’t be shown here.',
    'Ask your tutor for them as a PDF.',
  ],
  'invitation-over': [
    410,
    'This invitation was used, or is too old.',
    'Ask the person who sent it for a new one.',
  ],
  'email-taken': [
    409,
    'There is an account with this e-mail already.',
    'Sign in with it, or use another e-mail.',
  ],
  'upload-broken-off': [
    400,
    'The upload broke off.',
    'Check the connection and upload the file again.',
  ],
  'export-failed': [
    500,
    'The PDF could not be made.',
    'The record itself is safe. Try again in a minute.',
  ],
  'student-in-lesson': [
    409,
    'This student is in a lesson that is open.',
    'Close the lesson first, then delete their data.',
  ],
  unavailable: [503, 'Cuaderno is not ready yet.', 'Wait a moment and try again.'],
  internal: [
    500,
    'Something went wrong on our side.',
    'What was confirmed is safe. Try again in a minute.',
  ],
} as const satisfies Record<string, readonly [status: number, title: string, detail: string]>;

export type ProblemCode = keyof typeof PROBLEMS;
