/** A flow whose counts vary by less than that share of what chance would have it (variance over mean) is started by a clock. */
export const BY_CLOCK = 0.5;
/** One run that a clock starts stands for so many: a caller is one of many. */
export const A_RUN = 10;
