import pg from 'pg';

// Keys, ids and times are whole numbers below 2^53, kept as bigint: they travel as numbers.
pg.types.setTypeParser(20, Number);
/** bigint[], which the driver's list of types does not name. */
const BIG_ARRAY = 1016 as typeof pg.types.builtins.INT8;
pg.types.setTypeParser(BIG_ARRAY, (text: string) => (text === '{}' ? [] : text.slice(1, -1).split(',').map(Number)));
