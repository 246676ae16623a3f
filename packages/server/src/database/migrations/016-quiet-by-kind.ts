import type { Knex } from 'knex';

/** What phones say outside of calls is quiet each kind by itself: registrations, pings, presence, texts; all as the one rule was turned that hid them. */
export async function up(db: Knex): Promise<void> {
  const q = (methods: string): string => `where level <= info and call-id is null and cseq matches '${methods}$'`;
  const rules = [
    ['keep-alive', 'Pings of phones and trunks', 'OPTIONS of SIP that belong to no call, and their answers', q('OPTIONS')],
    [
      'presence',
      'Presence of phones',
      'SUBSCRIBE, NOTIFY and PUBLISH of SIP that belong to no call, and their answers',
      q('(?:SUBSCRIBE|NOTIFY|PUBLISH)'),
    ],
    ['texts', 'Texts between phones', 'MESSAGE of SIP that belongs to no call, and its answers', q('MESSAGE')],
  ] as const;
  const before: { is_on: boolean } | undefined = await db('quiet_rule').where({ name: 'registrations', supplied: true }).first('is_on');
  if (!before) return;
  for (const [name, label, why, search] of rules)
    await db('quiet_rule').insert({ name, label, why, q: search, is_on: before.is_on, supplied: true, changed_by: 'supplied' }).onConflict('name').ignore(); // prettier-ignore
  await db('quiet_rule')
    .where({ name: 'registrations', supplied: true })
    .update({ label: 'Registrations of phones', why: 'REGISTER of SIP and its answers', q: q('REGISTER') });
}
