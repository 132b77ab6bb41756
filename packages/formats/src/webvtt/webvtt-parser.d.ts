declare module 'webvtt-parser' {
  interface Parsed {
    cues: { id: string; startTime: number; endTime: number; text: string }[];
    errors: { message: string; line: number; col?: number }[];
  }
  const parser: {
    WebVTTParser: new () => {
      parse(
        file: string,
        mode: 'metadata' | 'subtitles/captions/descriptions' | 'chapters',
      ): Parsed;
    };
  };
  export default parser;
}
