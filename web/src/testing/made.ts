import type { Balance } from '../features/reference/balance';
import type { AnswerView, Corner, CornerEntry, KerbUse, LapLine, ReferenceView, RoadView } from '../api/api';

/** Things of a small lap, as the server would send them. */
export const LENGTH = 2000;

export const corner = (over: Partial<Corner> = {}): Corner => ({
  id: 'c1',
  number: '1',
  name: '',
  left: true,
  entry: 500,
  apexes: [540],
  exit: 590,
  radius: 45,
  doubt: 0,
  angle: 1.4,
  kind: 'BEND',
  complex: 0,
  uncounted: false,
  ...over,
});

export const entry = (over: Partial<CornerEntry> = {}): CornerEntry => ({
  corner: 'c1',
  slowing: 'BRAKE',
  points: [
    { kind: 'BRAKE', station: 430 },
    { kind: 'TURN_IN', station: 498 },
    { kind: 'RELEASE', station: 520 },
    { kind: 'APEX', station: 540 },
    { kind: 'FIRST_THROTTLE', station: 545 },
    { kind: 'FULL_THROTTLE', station: 580 },
    { kind: 'EXIT', station: 600 },
  ],
  approachGear: 5,
  approachSpeed: 60,
  firstEffort: 0.9,
  gear: 3,
  minimumSpeed: 25,
  apexType: 'LATE',
  apexGap: 1,
  firstThrottle: 0.3,
  note: '',
  schools: [],
  givenAway: 0,
  apexOff: 0,
  details: {},
  kerbs: [],
  again: [],
  actions: [],
  ...over,
});

export function road(): RoadView {
  const n = LENGTH / 10;
  const same = (v: number) => Array.from({ length: n }, () => v);
  return {
    length: LENGTH,
    step: 10,
    x: same(0),
    y: same(0),
    heading: same(0),
    left: same(5),
    right: same(5),
    height: same(0),
    hasHeight: false,
  } as unknown as RoadView;
}

/** An answer whose speed falls to 25 m/s at the apex; what the strip and the panels read of it. */
export function answer(of: CornerEntry, over: Record<string, unknown> = {}): AnswerView {
  const n = 301;
  const column = (f: (s: number) => number) => Array.from({ length: n }, (_, i) => f(350 + i));
  return {
    entry: of,
    words: {
      full: 'Brake at the 100 board.',
      line: 'Brake, third.',
      pocket: 'Brake',
      plain: '',
      braked: '',
      own: null,
      due: false,
    },
    warnings: [],
    answer: {
      minimumSpeed: 25,
      minimumStation: 542,
      arrivalSpeed: 60,
      arrivalGear: 5,
      arrivalRevs: 6900,
      lapEffect: 0.012,
      remarks: [],
      profile: {
        from: 350,
        step: 1,
        speed: column((s) => 25 + Math.abs(s - 542) / 5),
        throttle: column((s) => (s > 545 ? 1 : 0)),
        brake: column((s) => (s > 430 && s < 520 ? 0.8 : 0)),
        offset: column(() => 0),
        gear: column(() => 3),
        use: column(() => 0.9),
      },
      gears: [],
      braking: null,
      ...over,
    },
  } as unknown as AnswerView;
}

export const lap = (number: number, lapTime: number, over: Partial<LapLine> = {}): LapLine =>
  ({
    id: `lap${number}`,
    run: 'r1',
    number,
    kind: 'PUSH',
    kindWords: 'push',
    counts: true,
    lapTime,
    sectors: [],
    remark: '',
    note: '',
    measured: true,
    told: true,
    ...over,
  }) as LapLine;

/** A desk that panels can be shown on, with nothing of the server behind it. */
export class FakeDesk {
  entries: CornerEntry[];
  view = {
    id: 'ref1',
    length: LENGTH,
    motorcycle: false,
    gears: 6,
    corners: ['c1', 'c2', 'c3'].map((id, k) => ({ ...corner(), id, number: String(k + 1) })),
    things: { kerbs: [] },
  } as unknown as ReferenceView;
  selected = 'c1';
  movable = true;
  mine = true;
  day = '';
  settled = 0;
  answer: AnswerView | undefined;
  corner = corner();

  constructor(one: CornerEntry, said?: AnswerView) {
    this.entries = [one];
    this.answer = said ?? answer(one);
  }
  get entry(): CornerEntry {
    return this.entries[this.entries.length - 1] as CornerEntry;
  }
  edit(how: (e: CornerEntry) => CornerEntry): void {
    this.entries.push(how(this.entry));
  }
  useKerb(use: KerbUse, index = this.entry.kerbs.length): number {
    this.edit((e) => ({ ...e, kerbs: [...e.kerbs.slice(0, index), use, ...e.kerbs.slice(index + 1)] }));
    return index;
  }
  settle(): void {
    this.settled++;
  }
}

/** A part of a corner whose front uses more than its rear. */
export const pushing = (station: number) => ({
  station,
  front: 0.9,
  rear: 0.8,
  how: 'PUSHES' as const,
  understeer: 0.01,
  words: 'pushes by 10 %',
});

/** How a corner's axles are used; entry, middle and exit lie 3 m apart. */
export const balance = (over: Partial<Balance> = {}): Balance => {
  const from = over.from ?? 400;
  return {
    from,
    step: 3,
    front: [0.2, 0.5, 0.9],
    rear: [0.4, 0.5, 0.7],
    bears: [1, 1, 0.5],
    entry: pushing(from + 3),
    middle: pushing(from + 6),
    exit: pushing(from + 9),
    moves: [{ what: 'TRAIL', entry: -0.05, middle: 0, exit: 0 }],
    locks: [],
    around: [],
    antiLock: false,
    hands: { station: from + 5, rolls: false, rate: 3, share: 0.7, words: 'the wheel turns at 172° a second' },
    usual: false,
    ...over,
  };
};
