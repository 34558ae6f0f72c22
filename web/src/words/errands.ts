import type { Errand } from '../api/api';

/** What is due around a session, in a word and in a sentence. */
export const ERRANDS: Record<Errand, { word: string; what: string }> = {
  WALK: { word: 'walk', what: 'Walk the circuit' },
  REHEARSE: { word: 'rehearse', what: 'Go through the lap in your head' },
  BRIEF: { word: 'brief', what: 'Read the brief' },
  PRESSURES: { word: 'pressures', what: 'Set the cold pressures' },
  WARM: { word: 'warm', what: 'Warm engine and brakes' },
  OUT: { word: 'out', what: 'Go out' },
  LOG: { word: 'log', what: 'Say how it was, before the data' },
  DEBRIEF: { word: 'debrief', what: 'Bring the laps and look at them' },
  REVISE: { word: 'revise', what: 'Save a revision' },
};
