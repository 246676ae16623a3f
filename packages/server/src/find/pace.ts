const SHORTEST = 60_000_000;
const LONGEST = 30 * 86_400_000_000;
const FIRST = 600_000_000;
/** In milliseconds: a query that is asked at all is worth this much. */
const SHORT = 15;
/** A query takes about this share of a call: few long ones go through more than many short ones, but a call of one query is late by as much. */
const SHARE = 0.4;
/** At most this much more than was gone through at once before. */
const GROWTH = 3;
/** What is foreseen may be so much too long. */
const TOLERATED = 1.25;
/** Milliseconds for a unit of the planner's costs, before anything was measured. */
const FIRST_RATE = 0.012;

/**
 * How long the stretches of time are that are asked for at once, such that a query takes a share of a call. How much lies in a stretch differs by hundreds between a
 * night and a morning, and an index may make it all cheap: so what the planner expects of a stretch is asked for before, and told in milliseconds by what earlier
 * ones cost and took.
 */
export class Pace {
  private slice: number;
  private rate = FIRST_RATE;
  /** Milliseconds that a query should take. */
  private readonly wanted: number;

  /**
   * @param budget of a call, in milliseconds
   * @param behind microseconds that earlier calls went through, 0 at the first: one that goes on begins with as much
   */
  constructor(budget: number, behind: number) {
    this.wanted = budget * SHARE;
    this.slice = Math.min(LONGEST, Math.max(FIRST, behind));
  }

  /**
   * The next stretch, in microseconds.
   *
   * @param left milliseconds of the call
   * @param costOf what the planner expects of a stretch so long
   */
  async next(left: number, costOf: (slice: number) => Promise<number>): Promise<{ slice: number; cost: number }> {
    const { slice } = this;
    const cost = await costOf(slice);
    const most = Math.min(this.wanted, Math.max(left, SHORT));
    const foreseen = cost * this.rate;
    if (foreseen <= most * TOLERATED || slice <= SHORTEST) return { slice, cost };
    const shorter = Math.max(SHORTEST, Math.round((slice * most) / foreseen));
    return { slice: shorter, cost: await costOf(shorter) };
  }
  /** @param took milliseconds, whatever was done beside it */
  went({ slice, cost }: { slice: number; cost: number }, took: number): void {
    // a query of next to no cost tells nothing of others
    if (cost * this.rate > 1 || took > SHORT) this.rate = Math.max(took, 1) / Math.max(1, cost);
    this.slice = Math.round(Math.min(LONGEST, Math.max(SHORTEST, slice * Math.min(GROWTH, Math.max(1 / GROWTH, this.wanted / Math.max(1, took))))));
  }
}
