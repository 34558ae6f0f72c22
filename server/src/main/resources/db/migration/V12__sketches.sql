-- What feet and hand did in a lap, drawn with few knots; null in laps read before it was kept.
alter table driven_lap add column sketch jsonb;
