/** How loud one's own voice is. */
export class VoiceLevel {
  private readonly context = new AudioContext();
  private readonly analyser = this.context.createAnalyser();
  private readonly samples: Float32Array<ArrayBuffer>;

  constructor(track: MediaStreamTrack) {
    this.analyser.fftSize = 1024;
    this.samples = new Float32Array(this.analyser.fftSize);
    this.context.createMediaStreamSource(new MediaStream([track])).connect(this.analyser);
  }

  /** Root mean square of the last 1024 samples, from 0 to 1. */
  get now(): number {
    this.analyser.getFloatTimeDomainData(this.samples);
    const sum = this.samples.reduce((all, sample) => all + sample * sample, 0);
    return Math.sqrt(sum / this.samples.length);
  }

  close(): void {
    void this.context.close();
  }
}
