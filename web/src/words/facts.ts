import type { Detail } from '../api/api';

/** What is true of a corner and is no action of the driver. */
export const FACTS: Detail[] = ['HAZARD', 'ESCAPE', 'MISTAKE', 'LIMIT', 'OVERTAKE', 'RACE_LINE'];

/** How the balance feels is said beside the axles. */
const FELT: Detail[] = ['FEELS_IN', 'FEELS_MIDDLE', 'FEELS_OUT'];

export const fact = (detail: Detail): boolean => FACTS.includes(detail) || FELT.includes(detail);
