/* Installs the programs of Debian that tests need and this machine lacks. */
import { debian, OFFICE, OFFICE_LETTERS } from './steps.mjs';

debian([
  OFFICE,
  OFFICE_LETTERS,
  { command: 'unzip', name: 'unzip' },
  { command: 'rsvg-convert', name: 'librsvg2-bin' },
  { command: 'chromium', name: 'chromium' },
  // The same without a window, for stories.
  { command: 'chromium-headless-shell', name: 'chromium-headless-shell' },
  { command: 'qpdf', name: 'qpdf' },
  { command: 'pdftoppm', name: 'poppler-utils' },
  { command: 'mutool', name: 'mupdf-tools' },
  { command: 'ffprobe', name: 'ffmpeg' },
  // Makes the photos of telephones, which we read.
  { command: 'heif-enc', name: 'libheif-examples' },
  // The two other engines that browsers are made of.
  { command: 'firefox-esr', name: 'firefox-esr' },
  { command: 'WebKitWebDriver', name: 'webkit2gtk-driver' },
  { command: 'Xvfb', name: 'xvfb' },
  {
    command: '/usr/bin/python3',
    args: ['-c', 'import gi; gi.require_version("Poppler", "0.18")'],
    name: 'python3-gi gir1.2-poppler-0.18',
  },
]);
