/** Fields that state how something went, and those that tell what is done and where, whatever the format; compared in lower case without separators. */
const RESULTS = ['status', 'statuscode', 'code', 'errorcode', 'resultcode', 'returncode', 'exitcode', 'rc', 'result', 'state', 'sqlstate', 'sqlstatecode', 'reason', 'verdict', 'cause', 'error', 'fault', 'faultcode']; // prettier-ignore
const KINDS = ['queue', 'topic', 'exchange', 'channel', 'destination', 'event', 'action', 'operation', 'op', 'command', 'step', 'stage', 'phase', 'kind', 'type']; // prettier-ignore
const NAMES = new Set([...RESULTS, ...KINDS]);
const OF_RESULTS = new Set(RESULTS);
/** The name of what happened: `evt.name`. */
const OF_EVENTS = /(?:^|\.)(?:evt|event|action|operation|command|step|phase)[._]?name$/i;
/** Longer values are texts. */
const LONGEST = 24;
const VALUE = /^[\p{L}\p{N}][\p{L}\p{N}_.:/-]*$/u;
/** So much of a message is looked through for a result behind its first line. */
const LOOKED_THROUGH = 4000;
/** In XML an attribute or an element, in JSON a member, elsewhere `name=value` or `name: value`. */
const IN_BODY =
  /(?:^|[\s<"',{;])(status|code|result|state|reason|verdict|rc|error|fault|(?:status|error|result|return|fault|sql)[-_]?(?:code|state))["']?\s*[=:>]\s*["']?([\p{L}\p{N}][\p{L}\p{N}_.:/-]{0,23})(?=["'<,;}\s]|$)/imu;

const bare = (field: string): string => field.slice(field.lastIndexOf('.') + 1).toLowerCase().replace(/[-_]/g, ''); // prettier-ignore
/** Whether a field of this name states how something went, not what was done and where. */
export const isResult = (field: string): boolean => OF_RESULTS.has(bare(field));

const known = new Map<string, boolean>();
/** Whether a field of this name tells apart what shapes do not. */
function isTelling(field: string): boolean {
  let is = known.get(field);
  if (is === undefined) {
    is = NAMES.has(bare(field)) || OF_EVENTS.test(field);
    if (known.size < 10_000) known.set(field, is);
  }
  return is;
}

/**
 * What a record tells besides the words of its shape: its results (`status=202`), what it is about (`queue=orders.in`), and the result that stands in
 * what follows its first line (a body: `code=F-204`); several with a blank between, '' for none. Only short values count. By them a refusal inside of
 * an answer that is fine by its status shows.
 */
export function traitsOf(message: string, fields: Readonly<Record<string, unknown>>): string {
  let traits = '';
  for (const field in fields) {
    if (!isTelling(field)) continue;
    const value = fields[field];
    if (typeof value === 'number' || (typeof value === 'string' && value.length > 0 && value.length <= LONGEST && VALUE.test(value)))
      traits += `${traits === '' ? '' : ' '}${field}=${value}`;
  }
  const body = message.indexOf('\n');
  if (body >= 0) {
    const hit = IN_BODY.exec(message.slice(body, body + LOOKED_THROUGH));
    if (hit) traits += `${traits === '' ? '' : ' '}${hit[1]!.toLowerCase()}=${hit[2]!}`;
  }
  return traits.length > 96 ? traits.slice(0, traits.lastIndexOf(' ', 96)) : traits;
}
