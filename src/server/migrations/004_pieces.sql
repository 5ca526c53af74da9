-- A print is kept in pieces: none of them holds up a save while it is written or read.
create table attachment_piece (
  hash text not null,
  piece integer not null,
  bytes bytea not null,
  primary key (hash, piece)
);
alter table attachment alter column bytes drop not null;
