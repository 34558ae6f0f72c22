-- What is remarked of a lap is a key with values, told in the driver's units. Words of before stay
-- as they were written; where nothing was remarked, nothing is.
alter table driven_lap
  alter column remark type jsonb using case
    when remark = '' then '{"key": "nothing", "values": []}'::jsonb
    when remark = 'timed by hand' then '{"key": "remark.lap.by_hand", "values": []}'::jsonb
    else to_jsonb(remark)
  end;
