import { preparePicture } from './prepare.js';
import type { PictureNews } from './prepare.js';
import type { ShowNews, ShowTask } from './show.js';

export type DarkroomTask =
  { readonly kind: 'prepare'; readonly path: string } | ({ readonly kind: 'show' } & ShowTask);

export type DarkroomNews = PictureNews | ShowNews;

/* The process in which pictures are decoded: a task comes, news of its picture goes back. */
process.on('message', (task: DarkroomTask) => {
  develop(task).then(
    (news) => process.send?.(news),
    // What waits for it is told by the end of this process.
    () => process.exit(1),
  );
});
process.on('disconnect', () => process.exit());

async function develop(task: DarkroomTask): Promise<DarkroomNews> {
  if (task.kind === 'prepare') return preparePicture(task.path);
  // What draws PDFs is loaded when the first is to be drawn.
  const { showPicture } = await import('./show.js');
  return showPicture(task);
}
