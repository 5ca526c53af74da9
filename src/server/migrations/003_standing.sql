-- What was computed of a job at its last saved revision, with the picture of its part: shown at once when it is opened.
create table job_standing (
  job_id text primary key references job (id),
  revision integer not null,
  engine text not null,
  bytes bytea not null,
  size integer not null,
  kept_at timestamptz not null default now()
);
