/** What an error of the database says about trying again. */
interface Failure extends Error {
  code?: string;
}

const AWAY = /^(?:57P|08|53)|^E[A-Z]+$/;
const LOST = /Connection terminated|connection error|not queryable|timeout acquiring a connection|ECONN|Client was closed/i;

/** The database is away: the same has to be tried again when it is back. */
export function isDatabaseAway(error: unknown): boolean {
  const { code, name, message } = error as Failure;
  return (code !== undefined && AWAY.test(code)) || name === 'KnexTimeoutError' || LOST.test(message ?? '');
}

/** There is no room left where the database stands. */
export const isFull = (error: unknown): boolean => (error as Failure).code === '53100';

/** Two transactions were in each other's way (deadlock, serialisation failure, lock not to be had in time): the same goes well when it is tried again. */
export const isTransient = (error: unknown): boolean => ['40P01', '40001', '55P03'].includes((error as Failure).code ?? '');

const LONGEST_AWAY = 300_000;
/** Asks again until the database is back, for a while: for answers that are half told. */
export async function whenThere<Result>(ask: () => Promise<Result>): Promise<Result> {
  for (const until = Date.now() + LONGEST_AWAY; ;) {
    try {
      return await ask();
    } catch (error) {
      if (!isDatabaseAway(error) || Date.now() > until) throw error;
      await new Promise((resolve) => setTimeout(resolve, 500));
    }
  }
}
