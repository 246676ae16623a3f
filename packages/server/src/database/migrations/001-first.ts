import type { Knex } from 'knex';
import { STANDARD_KINDS } from '@fadenweg/core/identifiers';
import { HEARTBEATS, SUPPLIED_RULES } from '@fadenweg/core/quiet';
import { SUPPLIED_VIEWS } from '../supplied-views.ts';

/** Everything that the first slice keeps. Times are microseconds since 1970 (UTC) in bigint. */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    create extension if not exists pg_trgm;
    create table component (id smallint generated always as identity primary key, name text not null unique);
    create table host (id smallint generated always as identity primary key, name text not null unique);

    create table identifier_kind (
      id smallint generated always as identity primary key, name text not null unique, definition json not null,
      supplied boolean not null default false, retired boolean not null default false,
      changed_by text not null, changed_at timestamptz not null default now());
    create table clock (
      id int generated always as identity primary key, host_id smallint not null references host, component_id smallint not null references component,
      found json not null, readings json not null, hops int not null, partners json not null, set_ahead bigint,
      changed_by text not null, changed_at timestamptz not null default now(), unique (host_id, component_id));
    create table flow (name text primary key, definition json not null, usual_us bigint, usual json, changed_by text not null, changed_at timestamptz not null default now());
    create table meaning (id int generated always as identity primary key, component text, contains text not null, means text not null,
      changed_by text not null, changed_at timestamptz not null default now());

    create table import (
      id int generated always as identity primary key, state text not null, who text not null, environment text not null, zone text not null,
      demo boolean not null default false, started_at timestamptz not null default now(), ended_at timestamptz,
      files int not null default 0, already_there int not null default 0, bytes bigint not null default 0, errors json not null default '[]');
    create table source (
      id int generated always as identity primary key, import_id int not null references import, read_for int not null, path text not null,
      format text not null default '', confidence real not null default 0, zone text not null, zone_by text not null default 'given', encoding text not null default 'utf-8', hints json not null,
      family text not null, component_fixed boolean not null default false, host_fixed boolean not null default false,
      component_id smallint references component, host_id smallint references host, environment text not null, demo boolean not null default false,
      size bigint not null default 0, head_hash text not null default '', content_hash text not null default '', spool text, spool_from bigint not null default 0, growing boolean not null default false,
      state text not null, error text, done_bytes bigint not null default 0, done_lines int not null default 0, carried_bytes bigint not null default 0, reader_state json,
      records bigint not null default 0, understood bigint not null default 0, first_at bigint, last_at bigint);
    create index on source (import_id);
    create index on source (content_hash);
    create index on source (family);
    create index on source (head_hash);
    create index on source (size, id) where state in ('waiting', 'reading');
    create index on source (read_for) where state in ('waiting', 'reading');

    create table follow (
      id int generated always as identity primary key, path text not null, environment text not null, zone text not null, demo boolean not null default false,
      import_id int not null references import on delete cascade, who text not null, since timestamptz not null default now(), unique (path, environment));
    create table followed (
      source_id int primary key references source on delete cascade, follow_id int not null references follow on delete cascade, file text not null, file_key text not null,
      over boolean not null default false);
    create index on followed (follow_id);

    create table raw_block (
      source_id int not null references source, byte_from bigint not null, byte_to bigint not null, line_from int not null, bytes bytea not null,
      primary key (source_id, byte_from));
    alter table raw_block alter column bytes set compression lz4;

    create table record (
      at bigint not null, id bigint not null, source_id int not null, line int not null, length int not null,
      component_id smallint not null, host_id smallint not null, level smallint not null, marks smallint not null, flags smallint not null,
      took bigint, shape bigint not null, home bigint, logger text not null, time_text text not null, message text not null,
      attributes json, keys bigint[], lane int, shifted bigint, traits text
    ) partition by range (at);

    create table mark (name text primary key, value text not null);
    create table shape (id bigint primary key, text text not null);
    create table minute_count (minute bigint not null, source_id int not null, level smallint not null, count int not null);
    create index on minute_count (minute);
    create index on minute_count (source_id, minute);
    create table coverage (source_id int not null references source on delete cascade, from_at bigint not null, to_at bigint not null, primary key (source_id, from_at));

    create table sighting (
      key bigint not null, kind_id smallint not null, source_id int not null, scope text not null, value text not null,
      first_at bigint not null, last_at bigint not null, count int not null);
    create index on sighting (key);
    create table edge (
      a bigint not null, b bigint not null, source_id int not null, first_at bigint not null, first_id bigint not null, last_at bigint not null, count int not null);
    create index on edge (a);

    create table sign (
      source_id int not null, first_at bigint not null, first_id bigint not null, last_at bigint not null, count int not null,
      component_id smallint not null references component, host_id smallint not null references host,
      kind text not null, subject text not null, before text not null, after text not null, text text not null);
    create index on sign (source_id);
    create index on sign (first_at);
    create table registered_change (
      id int generated always as identity primary key, at bigint not null, component text not null, host text not null, environment text not null,
      what text not null, who text not null, registered_at timestamptz not null default now());
    create index on registered_change (at);
    create table known_cause (
      id int generated always as identity primary key, signature text not null, was boolean not null, remedy text not null, owner text not null,
      strand text not null, who text not null, noted_at timestamptz not null default now());
    create index on known_cause (signature);

    create table tie (key bigint not null, founder bigint not null, valid_from bigint not null, valid_to bigint not null);
    create index on tie (key, valid_from);
    create index on tie (founder);
    create table relation (founder bigint not null, other bigint not null, primary key (founder, other));
    create table carried (at bigint not null, id bigint not null, source_id int not null, home bigint not null, primary key (at, id));
    create index on carried (home, at);
    create index on carried (source_id);
    create table strand (
      founder bigint primary key, kind_id smallint not null, value text not null, flow text, outcome text not null,
      started_at bigint not null, ended_at bigint not null, duration bigint not null, records int not null,
      in_database bigint not null, in_transit bigint not null,
      failed_in text, headline text not null, parties bigint[] not null, environment text not null, components bigint[] not null, signature text);
    create index on strand (signature, started_at) where signature is not null;
    create index on strand (started_at, founder);
    create index on strand (flow, started_at, founder);
    create index on strand (flow, environment, started_at);
    create index on strand (outcome, started_at, founder);
    create index on strand (duration, founder);
    create index on strand using gin (parties);
    create index on strand using gin (components);

    create table own_code (
      id int generated always as identity primary key, code text not null, component text, title text not null, means text not null,
      causes text not null, next text not null, changed_by text not null, changed_at timestamptz not null default now());
    create unique index on own_code (code, coalesce(component, ''));
    create table own_package (prefix text primary key, changed_by text not null, changed_at timestamptz not null default now());
    create table quiet_rule (
      name text primary key, label text not null, why text not null, q text not null, is_on boolean not null, supplied boolean not null default false,
      changed_by text not null, changed_at timestamptz not null default now());
    create table runbook (
      id int generated always as identity primary key, body json not null, owner text not null, changed_at timestamptz not null default now());
    create table source_text (
      id int generated always as identity primary key, component text not null, version text not null, files int not null, bytes bigint not null,
      left_out int not null, who text not null, registered_at timestamptz not null default now(), unique (component, version));
    create table text_body (hash bytea primary key, body text not null);
    create table text_file (
      source_text_id int not null references source_text on delete cascade, path text not null, hash bytea not null references text_body,
      primary key (source_text_id, path));
    create index on text_file (hash);
    create table saved (
      id int generated always as identity primary key, what text not null, name text not null, body json not null, shared boolean not null, supplied boolean not null default false,
      owner text not null, changed_at timestamptz not null default now());
    create index on saved (what, id);
  `);
  for (const kind of STANDARD_KINDS) {
    await db('identifier_kind').insert({ name: kind.name, definition: JSON.stringify(kind), supplied: true, changed_by: 'supplied' });
  }
  for (const { name, label, why, q, on } of SUPPLIED_RULES)
    await db('quiet_rule').insert({ name, label, why, q, is_on: on, supplied: true, changed_by: 'supplied' });
  await db('quiet_rule').insert({ ...HEARTBEATS, q: '', is_on: true, supplied: true, changed_by: 'supplied' });
  for (const one of SUPPLIED_VIEWS)
    await db('saved').insert({ ...one, body: JSON.stringify(one.body), shared: true, supplied: true, owner: 'supplied' });
}

export async function down(): Promise<void> {
  throw new Error('a database is not taken back: restore its data folder');
}
