import { STANDARD_KINDS } from '@fadenweg/core/identifiers';
import type { Knex } from 'knex';

/** Dialogs of calls, and which of them are of one call. Call-IDs are found in texts, too, from now on. What an earlier version judged is judged again. */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    create table dialog (key bigint not null, founder bigint not null, begun_at bigint not null, told text not null);
    create index dialog_begun on dialog (begun_at);
    create index dialog_founder on dialog (founder);
    create table dialog_tie (a bigint not null, b bigint not null, how text not null, sure real not null, primary key (a, b));
    create index dialog_tie_b on dialog_tie (b);
    insert into work (kind, about, why, who, args)
      select 'weave', '', 'an earlier version of the program did not keep dialogs of calls', 'supplied', '{"all":true,"fresh":true}' where exists (select from strand)
      on conflict do nothing;
  `);
  const { inText } = STANDARD_KINDS.find(({ name }) => name === 'call')!;
  await db.raw(`update identifier_kind set definition = (definition::jsonb || jsonb_build_object('inText', ?::jsonb))::json where name = 'call' and supplied`, [JSON.stringify(inText)]); // prettier-ignore
}
