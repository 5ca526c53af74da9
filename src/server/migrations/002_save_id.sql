-- Every save carries an id of its own: one whose answer was lost can be sent again and does no harm.
alter table job_edit add column save_id text;
create unique index job_edit_save on job_edit (job_id, save_id) where save_id is not null;
