-- Whether a coach may see what the driver knows by heart. Nobody may before they are let in.
alter table share add column sees_rehearsed boolean not null default false;
