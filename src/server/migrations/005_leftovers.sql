-- A state of a job that was replaced by another one: offered in every window until somebody has decided about it.
create table job_leftover (
  id text primary key,
  job_id text not null references job (id),
  document jsonb not null,
  base integer not null,
  made_at timestamptz not null default now()
);
create index job_leftover_job on job_leftover (job_id, made_at);
