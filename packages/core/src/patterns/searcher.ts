import { RE2JS } from 're2js';
import { effortOf, longestSwift } from './effort.ts';

/** Where a pattern was found, and the text of its first group, null where it has none. */
export interface Hit {
  from: number;
  to: number;
  group: string | null;
}

/**
 * Looks for a pattern in time that is bounded for any text: by the ready-made engine where that is sure to be through soon, else by the linear one.
 * One searcher is used by one caller at a time.
 */
export class Searcher {
  private readonly native: RegExp;
  private readonly whole: RegExp;
  private readonly sticky: RegExp;
  /** Texts up to this length are for the ready-made engine. */
  private readonly longest: number;
  private compiled: RE2JS | null = null;

  /** @param pattern one of which `patternProblem` knows nothing */
  constructor(private readonly pattern: string) {
    this.native = new RegExp(pattern, 'g');
    this.whole = new RegExp(`^(?:${pattern})$`);
    this.sticky = new RegExp(pattern, 'y');
    this.longest = longestSwift(effortOf(pattern));
  }
  private get linear(): RE2JS {
    return (this.compiled ??= RE2JS.compile(this.pattern));
  }

  /** The first place from `from` on. */
  next(text: string, from: number): Hit | null {
    if (text.length <= this.longest) {
      this.native.lastIndex = from;
      return hitOf(this.native.exec(text));
    }
    const matcher = this.linear.matcher(text);
    return matcher.find(from) ? { from: matcher.start(), to: matcher.end(), group: matcher.groupCount() > 0 ? matcher.group(1) : null } : null;
  }
  /** At this very place. */
  at(text: string, place: number): Hit | null {
    if (text.length <= this.longest) {
      this.sticky.lastIndex = place;
      return hitOf(this.sticky.exec(text));
    }
    const hit = this.next(text, place);
    return hit?.from === place ? hit : null;
  }
  /** The whole of a text, and nothing less. */
  all(text: string): Hit | null {
    if (text.length <= this.longest) return hitOf(this.whole.exec(text));
    const matcher = this.linear.matcher(text);
    return matcher.matches() ? { from: 0, to: text.length, group: matcher.groupCount() > 0 ? matcher.group(1) : null } : null;
  }
}

const hitOf = (hit: RegExpExecArray | null): Hit | null => hit && { from: hit.index, to: hit.index + hit[0].length, group: hit[1] ?? null };
