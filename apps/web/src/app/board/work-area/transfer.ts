import { AssetShape } from '@cuaderno/contract/materials';
import type { Item } from '@cuaderno/core/board';
import type { Point } from '@cuaderno/core/geometry';
import { readJson } from '../../browser/read-json';
import type { BoardSession } from '../../live/board-session';
import { CARRIED_ASSET } from '../../materials/store/carried';
import type { PagesGo } from '../../materials/store/pages-go';
import type { AssetInfo } from '../../materials/store/shapes';
import type { Arranging } from '../editing/arranging';
import { copyItems, pastedItems } from '../editing/clipboard';
import type { MaterialInserter } from '../editing/material-inserter';
import type { Stage } from '../stage/stage';
import type { StageView } from '../stage/stage-view';
import type { Tools } from '../tool/tool';
import { isField } from './arrange-keys';

/** How far beside what is there already a copy of it is laid, in points. */
const ASIDE = 14;

/**
 * What comes onto a board from elsewhere and goes from there: dropped, pasted, copied, or laid from materials. For those
 * who lay nothing, every event stays the browser's: they copy and paste words.
 */
export class Transfer {
  /**
   * @param arranges whether this person lays material on pages
   * @param inserted a file was brought, and lies among materials now
   */
  constructor(
    private readonly session: () => BoardSession,
    private readonly stage: () => Stage,
    private readonly arranges: () => boolean,
    private readonly tools: Tools,
    private readonly arranging: Arranging,
    private readonly pictures: MaterialInserter,
    private readonly inserted: () => void,
  ) {}

  /** Pictures, sounds and films of this machine are laid at a place of the screen, or in the middle of what is seen. */
  insertFiles(files: readonly File[], client?: Point): void {
    const place = this.placeAt(client);
    if (place) void this.pictures.insert(files, place.page, place.at).then(this.inserted);
  }

  /** A file of the tutor's materials is laid where it was let go, or in the middle of what is seen. */
  lay(asset: AssetInfo, client?: Point, pagesGo: PagesGo = 'after'): void {
    const place = this.placeAt(client);
    if (!place) return;
    if (asset.kind === 'pdf') void this.pictures.insertPages(asset, place.page, pagesGo);
    else void this.pictures.layAsset(asset, place.page, place.at);
  }

  /** Something is carried over the board. */
  over(event: DragEvent): void {
    if (!this.arranges()) return;
    const types = event.dataTransfer?.types ?? [];
    if (types.includes('Files') || types.includes(CARRIED_ASSET)) event.preventDefault();
  }

  drop(event: DragEvent): void {
    const data = event.dataTransfer;
    if (!this.arranges() || !data) return;
    const at = { x: event.clientX, y: event.clientY };
    const carried = data.getData(CARRIED_ASSET);
    if (carried) {
      // Anything may be dragged here, from any page.
      const asset = readJson(AssetShape, carried);
      if (asset) this.lay(asset, at);
    } else if (data.types.includes('Files')) this.insertFiles([...data.files], at);
    else return;
    event.preventDefault();
  }

  /** What is chosen goes onto the clipboard; where it was cut, it is gone from the page. */
  copy(event: ClipboardEvent): void {
    const items = this.arranging.items();
    // Words that are marked somewhere on the screen are what is meant, then.
    const words = getSelection()?.isCollapsed === false;
    if (
      !this.arranges() ||
      words ||
      isField(event.target) ||
      items.length === 0 ||
      !event.clipboardData
    )
      return;
    event.preventDefault();
    copyItems(event.clipboardData, items);
    if (event.type === 'cut') this.arranging.do({ kind: 'remove' });
  }

  paste(event: ClipboardEvent): void {
    const data = event.clipboardData;
    if (!this.arranges() || isField(event.target) || !data) return;
    const items = pastedItems(data);
    const files = [...data.files].filter(({ type }) => /^(image|audio|video)\//.test(type));
    if (!items && files.length === 0) return;
    event.preventDefault();
    if (items) void this.pasteItems(items);
    else this.insertFiles(files);
  }

  /** Items from this board or another: their files may be seen here from now on. */
  private async pasteItems(items: readonly Item[]): Promise<void> {
    const place = this.stage().view.middle;
    if (!place || !(await this.pictures.share(items))) return;
    const here = this.session().board().pages.get(place.page)!;
    // Where they came from if that is on this page; a step aside if they are there still.
    const there = items.some(({ id }) => here.items.get(id)?.removed === null);
    const aside = there ? ASIDE : 0;
    this.tools.tool.set('select');
    this.arranging.lay(place.page, items, aside, aside);
  }

  private placeAt(client: Point | undefined): StageView['middle'] {
    return (client && this.stage().placeAt(client)) ?? this.stage().view.middle;
  }
}
