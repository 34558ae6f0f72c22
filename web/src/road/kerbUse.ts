import type { Corner, Kerb, KerbUse } from '../api/api';

/** What is done with a kerb, in words and in wheels on it. */
export const KERB_USES: Record<KerbUse['how'], { word: string; wheels: number }> = {
  KEEP_OFF: { word: 'keep off', wheels: 0 },
  TOUCH: { word: 'touch', wheels: 1 },
  RIDE: { word: 'ride', wheels: 2 },
  HALF_THE_CAR: { word: 'half the car', wheels: 3 },
  STRADDLE: { word: 'straddle', wheels: 4 },
  OPEN: { word: 'open', wheels: 0 },
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

export const nameOf = (use: KerbUse): string => `${use.part.toLowerCase()} kerb`;
