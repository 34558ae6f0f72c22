import type { Felt } from '../api/api';

/** How a corner felt, in a word. */
export const FELT: Record<Felt, string> = {
  AS_PLANNED: 'as planned',
  EARLY: 'early',
  LATE: 'late',
  DEEP: 'deep',
  WIDE: 'wide',
  UNSURE: 'unsure',
  SCARED: 'scared',
  GREAT: 'great',
};
