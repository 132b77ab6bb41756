import { peaks, peaksOf, posterOf } from './media-preview';

describe('what sounds and films look like', () => {
  it('is as high as they are loud, the loudest part being full', () => {
    const samples = new Float32Array(400);
    samples.fill(0.5, 100, 200);
    samples.fill(-0.25, 300, 400);
    expect(peaks(samples, 4)).toEqual([0, 1, 0, 0.5]);
    expect(peaks(new Float32Array(100), 10)).toEqual(Array.from({ length: 10 }, () => 0));
    expect(peaks(new Float32Array(3), 10).length).toBe(3);
  });

  it('is unknown of what this browser can’t play, and nothing breaks', async () => {
    const noise = new Blob([new Uint8Array(2000)]);
    expect(await posterOf(noise)).toBeNull();
    expect(await peaksOf(noise, 10)).toBeNull();
    expect(await peaksOf(noise, 10_000))
      .withContext('too long to be read')
      .toBeNull();
  });
});
