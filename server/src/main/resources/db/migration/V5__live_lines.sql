-- When a line that is open last brought something; null until it does.
alter table recording add column heard_at timestamptz;
create index recording_live on recording (heard_at) where state = 'LIVE';
