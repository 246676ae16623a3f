import { describe, expect, it } from '@jest/globals';
import { isoMicros } from '../../units.ts';
import { guessFormats, sampleOf } from '../registry.ts';
import { readWhole } from '../testing/drawn-heads.ts';

const LOG = `/usr/sbin/labdb, Version: 8.0.36. started with:
Time                 Id Command    Argument
# Time: 2026-11-24T10:00:00.123456Z
# User@Host: desk[desk] @ localhost []  Id:    12
# Query_time: 2.500123  Lock_time: 0.000012 Rows_sent: 1  Rows_examined: 40000
SET timestamp=1795600798;
select * from orders where number = 'LX-204817';
# User@Host: store[store] @  [192.0.2.7]
# Query_time: 3.000000  Lock_time: 0.000012 Rows_sent: 0  Rows_examined: 70
use parts;
SET timestamp=1795600805;
update parts set state = 'taken'
 where id = 4;
# Time: 261124  9:00:09
# User@Host: desk[desk] @ localhost []
# Query_time: 1.5  Lock_time: 0.000012 Rows_sent: 1  Rows_examined: 2
delete from parts where id = 5;
`;

describe('slow statements', () => {
  it('are recognised by the lines before them', () => {
    expect(guessFormats(sampleOf('slow.log', LOG, true))[0]).toEqual({ format: 'slow-statements', confidence: 0.98 });
    expect(guessFormats(sampleOf('notes.txt', '# Time: 2026-11-24T10:00:00Z\n# a note\nselect 1;\n', true))[0]!.format).not.toBe('slow-statements');
  });
  it('have time, user and duration of the lines before them', () => {
    const [banner, ...drafts] = readWhole(LOG, 'slow.log', { zone: 'Europe/Berlin' });
    expect(banner!.understood).toBe(false);
    expect(drafts.map((one) => [isoMicros(one.at), one.took, one.message, one.fields.user, one.fields.client])).toEqual([
      ['2026-11-24T10:00:00.123456Z', 2_500_123, "select * from orders where number = 'LX-204817';", 'desk', 'localhost'],
      ['2026-11-24T10:00:00.123456Z', 3_000_000, "update parts set state = 'taken'\n where id = 4;", 'store', '192.0.2.7'],
      ['2026-11-24T08:00:09.000000Z', 1_500_000, 'delete from parts where id = 5;', 'desk', 'localhost'],
    ]);
    expect(drafts[0]!.fields).toMatchObject({ thread: '12', rows_examined: 40_000, lock_time: 0.000012 });
  });
});
