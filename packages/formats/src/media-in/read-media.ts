import { ADTS, FLAC, Input, MATROSKA, MP3, MP4, OGG, QTFF, WAVE, WEBM } from 'mediabunny';
import type { InputTrack, Source } from 'mediabunny';
import { MediaError } from './media-error.js';

/** What a sound or a film is. */
export interface MediaFacts {
  readonly medium: 'sound' | 'film';
  /** Its media type, without codecs. */
  readonly type: string;
  /** In seconds. */
  readonly length: number;
  /** Of a film, in pixels as it is shown; 0 for a sound. */
  readonly width: number;
  readonly height: number;
  /** Whether all browsers of the last two years play it. */
  readonly everywhere: boolean;
}

/** Codecs that browsers play: common practice, and tried in Chromium. */
const PLAYABLE = new Set(['avc', 'vp8', 'vp9', 'av1', 'aac', 'mp3', 'opus', 'vorbis', 'flac']);

/** What some of them don't play: common practice, no source. */
const NOT_EVERYWHERE = new Set(['av1', 'vorbis']);
const NOT_EVERYWHERE_IN = new Set(['Matroska', 'Ogg']);

/** How the reader says that a whole file is in a code which it doesn't know: ADPCM, say, in a WAV file. */
const CODEC = /^Unsupported .*codec/i;

/** Types under which files are sent. */
const TYPES: Readonly<Record<string, readonly [sound: string, film: string]>> = {
  MP4: ['audio/mp4', 'video/mp4'],
  'QuickTime File Format': ['audio/mp4', 'video/mp4'],
  WebM: ['audio/webm', 'video/webm'],
  Matroska: ['audio/webm', 'video/webm'],
  Ogg: ['audio/ogg', 'video/ogg'],
  WAVE: ['audio/wav', 'audio/wav'],
  MP3: ['audio/mpeg', 'audio/mpeg'],
  ADTS: ['audio/aac', 'audio/aac'],
  FLAC: ['audio/flac', 'audio/flac'],
};

/**
 * Reads what a file holds, whatever it is called. Throws `MediaError` for what can't be played:
 * a track that browsers can't read makes the whole file one that they can't.
 */
export async function readMedia(source: Source): Promise<MediaFacts> {
  const formats = [MP4, QTFF, WEBM, MATROSKA, OGG, WAVE, FLAC, MP3, ADTS];
  const input = new Input({ formats, source });
  try {
    if (!(await input.canRead())) throw new MediaError('unknown');
    const format = await input.getFormat();
    const tracks = await input.getTracks();
    const film = tracks.find((track) => track.isVideoTrack());
    const heard = tracks.filter((track) => track.isAudioTrack());
    const played = film ? [film, ...heard] : heard;
    if (played.length === 0) throw new MediaError('broken');
    for (const track of played) if (!(await isPlayable(track))) throw new MediaError('codec');
    const length = await input.computeDuration(played);
    if (!Number.isFinite(length) || length <= 0) throw new MediaError('broken');
    const codecs = await Promise.all(played.map((track) => track.getCodec()));
    const types = TYPES[format.name];
    if (!types) throw new MediaError('codec');
    return {
      medium: film ? 'film' : 'sound',
      type: types[film ? 1 : 0],
      length,
      width: film ? await film.getDisplayWidth() : 0,
      height: film ? await film.getDisplayHeight() : 0,
      everywhere:
        !NOT_EVERYWHERE_IN.has(format.name) &&
        !codecs.some((codec) => codec !== null && NOT_EVERYWHERE.has(codec)),
    };
  } catch (error) {
    if (error instanceof MediaError) throw error;
    throw new MediaError(error instanceof Error && CODEC.test(error.message) ? 'codec' : 'broken');
  } finally {
    input.dispose();
  }
}

async function isPlayable(track: InputTrack): Promise<boolean> {
  const codec = await track.getCodec();
  return codec !== null && (PLAYABLE.has(codec) || codec.startsWith('pcm'));
}
