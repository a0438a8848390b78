-- What each job came to, for lists: made from its figures while nothing is recorded, and shown only while it is true.

-- Up Migration

create table job_headline (
  job_id bigint primary key references job,
  -- Of what was recorded and written of the job when it was made; another one: it is made anew.
  made_of text not null,
  -- Null where nothing can be made of the job.
  headline jsonb
);
select pgboss.create_queue('job-headlines', '{"policy":"stately","retryLimit":3,"retryDelay":5,"expireInSeconds":300,"retentionMinutes":1440}');

-- Down Migration

drop table job_headline;
select pgboss.delete_queue('job-headlines');
