import type { Errand } from '../api/api';
import { tell } from './tell';

/** What is due around a session, in a word and in a sentence. */
export const ERRANDS: Record<Errand, { word: string; what: string }> = {
  WALK: { word: tell('errands.walk'), what: tell('errands.walk_the_circuit') },
  REHEARSE: { word: tell('errands.rehearse'), what: tell('errands.go_through_the_lap_in') },
  BRIEF: { word: tell('errands.brief'), what: tell('errands.read_the_brief') },
  PRESSURES: { word: tell('errands.pressures'), what: tell('errands.set_the_cold_pressures') },
  WARM: { word: tell('errands.warm'), what: tell('errands.warm_engine_and_brakes') },
  OUT: { word: tell('errands.out'), what: tell('errands.go_out') },
  LOG: { word: tell('errands.log'), what: tell('errands.say_how_it_was_before') },
  DEBRIEF: { word: tell('errands.debrief'), what: tell('errands.bring_the_laps_and_look') },
  REVISE: { word: tell('errands.revise'), what: tell('errands.save_a_revision') },
};
