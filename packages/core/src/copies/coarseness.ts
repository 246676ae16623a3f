const STEPS = [60_000_000, 1_000_000, 1_000];

/** What times are told to, in microseconds: whole minutes, seconds, milliseconds, or finer. */
export const coarsenessOf = (times: readonly number[]): number => STEPS.find((step) => times.every((at) => at % step === 0)) ?? 1;
