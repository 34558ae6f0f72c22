import type { Corner, Kerb, KerbUse } from '../api/api';
import { few } from '../words/few';
import { tell } from '../words/tell';

/** What is done with a kerb, in words and in wheels on it. */
export const KERB_USES: Record<KerbUse['how'], { word: string; wheels: number }> = {
  KEEP_OFF: { word: tell('kerbUse.keep_off'), wheels: 0 },
  TOUCH: { word: tell('kerbUse.touch'), wheels: 1 },
  RIDE: { word: tell('kerbUse.ride'), wheels: 2 },
  HALF_THE_CAR: { word: tell('kerbUse.half_the_car'), wheels: 3 },
  STRADDLE: { word: tell('kerbUse.straddle'), wheels: 4 },
  OPEN: { word: tell('kerbUse.open'), wheels: 0 },
};

/** What a driver can do with one. */
export const USES = ['KEEP_OFF', 'TOUCH', 'RIDE', 'HALF_THE_CAR', 'STRADDLE'] as const;

/** Where a kerb is joined and left: as said, else along the kerb of the survey, else a stretch of the corner. */
export function reachOf(
  use: KerbUse,
  kerbs: Kerb[],
  corner: Corner,
): { from: number; to: number; left: boolean; kerb: Kerb | undefined } {
  const kerb = kerbs.find((k) => k.corner === corner.id && k.part === use.part);
  const apex = corner.apexes[0] ?? corner.entry;
  const usual: Record<KerbUse['part'], [number, number]> = {
    ENTRY: [corner.entry - 15, corner.entry],
    APEX: [apex - 8, apex + 8],
    EXIT: [corner.exit - 15, corner.exit],
  };
  const [from, to] = usual[use.part];
  return {
    from: use.join ?? kerb?.from ?? from,
    to: use.leave ?? kerb?.to ?? to,
    left: kerb?.left ?? (use.part === 'APEX' ? corner.left : !corner.left),
    kerb,
  };
}

export const nameOf = (use: KerbUse): string => tell('kerbUse.kerb', { part: few(use.part) });
