-- The picture gauge: set-ups with their scales, and pictures that go with gauges. A crop is kept once, by its SHA-256.
create table setups (
  id integer generated always as identity primary key,
  name text not null check (length(name) between 1 and 60),
  focuses_itself boolean not null default false,
  tone text check (tone in ('linear', 'srgb')),
  due_days integer not null default 180 check (due_days between 1 and 3650),
  note text not null default '',
  withdrawn boolean not null default false,
  version integer not null default 1,
  created_by integer not null references people,
  created_at timestamptz not null default now()
);
create unique index setups_name on setups (lower(name));

create table scales (
  id bigint generated always as identity primary key,
  setup_id integer not null references setups,
  how text not null check (how in ('stage scale', 'pin', 'two points', 'by hand')),
  known_mm double precision check (known_mm between 0.0005 and 50),
  um_per_px double precision not null check (um_per_px between 0.01 and 1000),
  u_um_per_px double precision not null check (u_um_per_px between 0 and 100),
  note text not null default '',
  occurred_at timestamptz not null,
  person_id integer not null references people,
  recorded_at timestamptz not null default now(),
  check (occurred_at <= recorded_at + interval '5 minutes')
);
create index scales_of_setup on scales (setup_id, occurred_at desc, id desc);

create table blobs (
  id bigint generated always as identity primary key,
  sha256 text not null unique check (sha256 ~ '^[0-9a-f]{64}$'),
  type text not null check (type in ('image/jpeg', 'image/png', 'image/webp')),
  bytes bytea not null check (octet_length(bytes) between 1 and 300000),
  recorded_at timestamptz not null default now()
);

alter table gauges add column setup_id integer references setups;
alter table gauges add column u_shared_mm double precision check (u_shared_mm between 0.00001 and 0.2);
alter table gauges add column picture jsonb;
alter table gauges add column blob text references blobs (sha256);
alter table gauges add check (num_nonnulls(setup_id, u_shared_mm, picture, blob) in (0, 4));
alter table gauges add check (setup_id is null or (value_mm is not null and u_shared_mm <= u_mm));
create index gauges_of_setup on gauges (setup_id) where setup_id is not null;
create or replace view standing_gauges as select g.* from gauges g
  where not exists (select from strikes s where s.target = 'gauge' and s.target_id = g.id);
