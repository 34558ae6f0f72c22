-- On which day a run was driven, as its driver says: empty for the reference's own, the id of a
-- variant, the kind of a day that the reference does not have; null to be told from the laps.
alter table run add column day varchar(60);
update run set day = case conditions when 'COLD' then 'COLD_TYRES' else conditions end
  where conditions <> 'DRY';
alter table run drop column conditions;
-- What a lap uses of the grip across, as a factor on what the reference's computed lap does, and
-- the day by whose line and grip its events were found; null in laps read before that was asked.
alter table driven_lap add column grip double precision;
alter table driven_lap add column day varchar(60);
