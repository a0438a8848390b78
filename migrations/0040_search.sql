-- Words that jobs are found by have indexes by three letters: a search looks at what may hold them, not at everything.

-- Up Migration

create extension if not exists pg_trgm;
create index run_note_words on run using gin (lower(note) gin_trgm_ops) where note <> '' and job_id is not null;
create index note_words on note using gin (lower(text) gin_trgm_ops) where removed_at is null;
create index setup_words on setup using gin (lower(change) gin_trgm_ops) where removed_at is null;
create index suspicion_words on suspicion using gin (lower(cause) gin_trgm_ops) where removed_at is null;
create index tune_file_words on setup_tune_file using gin (lower(name) gin_trgm_ops) where removed_at is null;

-- Down Migration

drop index tune_file_words;
drop index suspicion_words;
drop index setup_words;
drop index note_words;
drop index run_note_words;
drop extension pg_trgm;
