import { DisplayListBuilder } from '../../display/index.js';
import { frameContains } from '../../geometry/index.js';
import { drawMedia, playSign } from './draw.js';
import type { MediaSpec } from './spec.js';

const sound: MediaSpec = {
  kind: 'media',
  medium: 'sound',
  layer: 'material',
  order: 'a0',
  frame: { x: 100, y: 50, width: 240, height: 54, turn: 0 },
  file: 'a'.repeat(64),
  name: 'Fog horn.mp3',
  length: 12,
};

function looks(media: MediaSpec): ReturnType<DisplayListBuilder['done']> {
  const list = new DisplayListBuilder();
  drawMedia(media, list);
  return list.done();
}

describe('what sounds and films look like', () => {
  it('puts the sign that plays it inside its frame, however it lies', () => {
    for (const turn of [0, 30, 90, -135])
      for (const [width, height] of [
        [240, 54],
        [400, 300],
        [20, 200],
        [6, 6],
      ] as const) {
        const frame = { x: 100, y: 50, width, height, turn };
        const { at, radius } = playSign(frame);
        for (const [dx, dy] of [
          [radius, 0],
          [-radius, 0],
          [0, radius],
          [0, -radius],
        ] as const)
          expect(frameContains(frame, { x: at.x + dx, y: at.y + dy }, 1e-6)).toBeTrue();
      }
  });

  it('shows a film by its picture, and a sound by how loud it is', () => {
    const poster = 'b'.repeat(64);
    const film = looks({ ...sound, medium: 'film', poster });
    expect(film.flatMap((item) => (item.kind === 'image' ? [item.file] : []))).toEqual([poster]);
    expect(looks({ ...sound, medium: 'film' }).some(({ kind }) => kind === 'image')).toBeFalse();
    const bars = (peaks: number[]): number =>
      Math.max(
        ...looks({ ...sound, peaks }).flatMap((item) =>
          item.kind === 'path' && item.colour === '#7f93b8' ? item.path.steps.length : [],
        ),
      );
    expect(bars([0.2, 1, 0.5])).toBe(3 * 5);
    expect(bars(Array.from({ length: 120 }, () => 0.5))).toBeLessThanOrEqual(120 * 5);
  });

  it('leaves out the bars where there is no room for them', () => {
    const narrow = { ...sound, frame: { ...sound.frame, width: 40, height: 40 } };
    expect(looks(narrow).length).toBe(4);
  });
});
