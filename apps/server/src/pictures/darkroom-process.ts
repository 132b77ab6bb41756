import { preparePicture } from './prepare.js';

/* The process in which pictures are decoded: a path comes, news of its picture goes back. */
process.on('message', (path: string) => {
  void preparePicture(path).then((news) => process.send?.(news));
});
process.on('disconnect', () => process.exit());
