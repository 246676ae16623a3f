const BASE = 1 << 14;

/**
 * Indexes of times in the order of these, by counting their digits from the lowest on (radix sort): no list of all of them beside
 * the two columns, as sorting by comparing makes one.
 *
 * @param times whole numbers, the first `length` of them
 * @param among the order of two indexes of the same time
 */
export function byTime(times: Float64Array, length: number, among: (a: number, b: number) => number): Uint32Array {
  let least = Infinity;
  let most = -Infinity;
  for (let i = 0; i < length; i++) {
    if (times[i]! < least) least = times[i]!;
    if (times[i]! > most) most = times[i]!;
  }
  let order = new Uint32Array(length);
  for (let i = 0; i < length; i++) order[i] = i;
  let sorted = new Uint32Array(length);
  let last = length === 0;
  for (let unit = 1; !last; unit *= BASE) {
    // digits of the times themselves: what lies between two of them may be more than a number holds exactly
    const lowest = Math.floor(least / unit);
    last = Math.floor(most / unit) - lowest < BASE;
    const digit = (index: number): number => {
      const high = Math.floor(times[index]! / unit);
      return last ? high - lowest : high - Math.floor(high / BASE) * BASE;
    };
    const starts = new Uint32Array(BASE + 1);
    for (let i = 0; i < length; i++) starts[digit(i) + 1]!++;
    for (let i = 0; i < BASE; i++) starts[i + 1]! += starts[i]!;
    for (let i = 0; i < length; i++) {
      const place = digit(order[i]!);
      sorted[starts[place]!] = order[i]!;
      starts[place]!++;
    }
    [order, sorted] = [sorted, order];
  }
  for (let from = 0; from < length;) {
    let to = from + 1;
    while (to < length && times[order[to]!] === times[order[from]!]) to++;
    if (to - from > 1) order.subarray(from, to).sort(among);
    from = to;
  }
  return order;
}
