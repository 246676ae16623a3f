import { ORDER_DESK, orderDeskLine } from '../components/order-desk.ts';
import { asked } from '../stories/story.ts';
import { SHOPS, type World } from '../world.ts';
import { localText, MS, SECOND, type Micros } from '../writing/times.ts';
import { lensOrder } from './lens-order.ts';

/** A chain of shops sends its orders in one file; when the file comes again, nobody notices. */
export function orderFile(world: World, arrived: Micros, orders: number): void {
  const text = localText(arrived);
  const file = `OF-${text.slice(0, 10).replaceAll('-', '')}-${text.slice(11, 16).replace(':', '')}`;
  const shop = SHOPS[Number(text.slice(8, 10)) % SHOPS.length]!;
  const numbers = Array.from({ length: orders }, (_, i) => `S${shop}-${10_000 + (Math.floor(arrived / SECOND + i) % 90_000)}`);
  read(arrived, null);
  const again = asked(world.stories, (story) => story.again?.(arrived));
  if (again) read(again.answer, again.story);

  function read(at: Micros, doubled: number | null): void {
    world.sink.emit(ORDER_DESK, at, orderDeskLine(at, 'INFO', 'file-1', 'o.b.FileIntake', `file ${file} received, ${orders} orders`));
    for (const [i, reference] of numbers.entries())
      lensOrder(world, at + 40 * MS + i * 900 * MS, { shop, inFile: { file, line: i + 1, reference }, doubled });
  }
}
