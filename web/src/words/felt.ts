import type { Felt } from '../api/api';
import { tell } from './tell';

/** How a corner felt, in a word. */
export const FELT: Record<Felt, string> = {
  AS_PLANNED: tell('felt.as_planned'),
  EARLY: tell('felt.early'),
  LATE: tell('felt.late'),
  DEEP: tell('felt.deep'),
  WIDE: tell('felt.wide'),
  UNSURE: tell('felt.unsure'),
  SCARED: tell('felt.scared'),
  GREAT: tell('felt.great'),
};
