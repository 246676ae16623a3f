import type { Knex } from 'knex';

/**
 * Strands counted by minute and by hour: flow, how they ended, how long they lasted (the bucket of a sketch, `core/rounds/lasted.ts`). What strands come, go and change by is written in the same
 * statement as they are, whoever does it, so that the sums are theirs at any instant.
 *
 * What people say of a departure: that it is in hand, or tolerated.
 */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    create function lasted(duration bigint) returns smallint language sql immutable parallel safe as
      $$ select ceil(ln(greatest(duration, 1)::float8) / ln(1.02::float8 / 0.98::float8))::smallint $$;
    create table strand_minute (
      slot int not null, environment text not null, flow text not null, outcome text not null, lasted smallint not null, strands int not null,
      primary key (environment, slot, flow, outcome, lasted));
    create table strand_hour (like strand_minute including all);

    create view strand_slot as
      select (started_at / 60000000)::int as slot, environment, coalesce(flow, '') as flow, outcome, lasted(duration) as lasted, count(*)::int as strands from strand group by 1, 2, 3, 4, 5;
    insert into strand_minute select * from strand_slot;
    insert into strand_hour select slot / 60, environment, flow, outcome, lasted, sum(strands) from strand_minute group by 1, 2, 3, 4, 5;

    create function count_strands() returns trigger language plpgsql as $$
    begin
      if tg_op = 'INSERT' then
        insert into strand_minute
          select (started_at / 60000000)::int, environment, coalesce(flow, ''), outcome, lasted(duration), count(*)::int from come group by 1, 2, 3, 4, 5 order by 1, 2, 3, 4, 5
          on conflict (environment, slot, flow, outcome, lasted) do update set strands = strand_minute.strands + excluded.strands;
        insert into strand_hour
          select (started_at / 3600000000)::int, environment, coalesce(flow, ''), outcome, lasted(duration), count(*)::int from come group by 1, 2, 3, 4, 5 order by 1, 2, 3, 4, 5
          on conflict (environment, slot, flow, outcome, lasted) do update set strands = strand_hour.strands + excluded.strands;
      else
        update strand_minute m set strands = m.strands - g.strands
          from (select (started_at / 60000000)::int as slot, environment, coalesce(flow, '') as flow, outcome, lasted(duration) as lasted, count(*)::int as strands from gone group by 1, 2, 3, 4, 5) g
          where (m.slot, m.environment, m.flow, m.outcome, m.lasted) = (g.slot, g.environment, g.flow, g.outcome, g.lasted);
        update strand_hour m set strands = m.strands - g.strands
          from (select (started_at / 3600000000)::int as slot, environment, coalesce(flow, '') as flow, outcome, lasted(duration) as lasted, count(*)::int as strands from gone group by 1, 2, 3, 4, 5) g
          where (m.slot, m.environment, m.flow, m.outcome, m.lasted) = (g.slot, g.environment, g.flow, g.outcome, g.lasted);
        delete from strand_minute m using (select distinct environment, (started_at / 60000000)::int as slot from gone) g where m.environment = g.environment and m.slot = g.slot and m.strands = 0;
        delete from strand_hour m using (select distinct environment, (started_at / 3600000000)::int as slot from gone) g where m.environment = g.environment and m.slot = g.slot and m.strands = 0;
      end if;
      return null;
    end $$;
    create trigger strands_come after insert on strand referencing new table as come for each statement execute function count_strands();
    create trigger strands_go after delete on strand referencing old table as gone for each statement execute function count_strands();
    create function strands_stay() returns trigger language plpgsql as $$ begin raise exception 'strands are taken out and written anew: sums follow no %', tg_op; end $$;
    create trigger strands_stay before update or truncate on strand for each statement execute function strands_stay();

    create table noted_departure (
      key text primary key, state text not null, note text not null, until_at bigint, strands int not null, share double precision not null,
      changed_by text not null, changed_at timestamptz not null default now());
  `);
}
