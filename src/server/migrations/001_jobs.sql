create table job (
  id text primary key,
  document jsonb not null,
  revision integer not null default 1,
  created_at timestamptz not null default now(),
  changed_at timestamptz not null default now(),
  deleted_at timestamptz
);

create table job_edit (
  id bigint generated always as identity primary key,
  job_id text not null references job (id),
  revision integer not null,
  patches jsonb not null,
  made_at timestamptz not null default now()
);
create index job_edit_job on job_edit (job_id, revision);

create table job_summary (
  job_id text primary key references job (id),
  revision integer not null,
  summary jsonb not null
);

create table attachment (
  hash text primary key,
  media_type text not null,
  size integer not null,
  bytes bytea not null,
  created_at timestamptz not null default now()
);

create table shop_setting (
  name text primary key,
  value jsonb not null
);
