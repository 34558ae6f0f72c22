import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Action, CornerEntry, ReferenceContent, ReferenceView, ScoredAction, Variant } from '../../api/api';
import { Desk } from './desk.svelte';
import { moved, station } from '../../road/points';
import { made } from '../../road/score';

// The client takes hold of fetch and Request when it is made, so both are replaced before it is.
const server = vi.hoisted(() => {
  const hoisted = { answer: (request: Request): Promise<Response> => Promise.reject(new Error(request.url)) };
  const RealRequest = globalThis.Request;
  globalThis.Request = class extends RealRequest {
    constructor(input: string | Request | URL, init?: RequestInit) {
      super(typeof input === 'string' ? new URL(input, 'http://localhost/') : input, init);
    }
  };
  globalThis.fetch = (input) => hoisted.answer(input as Request);
  return hoisted;
});

const LENGTH = 4000;

function entry(corner: string, brake: number): CornerEntry {
  return {
    corner,
    slowing: 'BRAKE',
    points: [
      { kind: 'BRAKE', station: brake },
      { kind: 'TURN_IN', station: brake + 60 },
      { kind: 'APEX', station: brake + 100 },
    ],
    approachGear: 5,
    approachSpeed: 60,
    firstEffort: 0.9,
    gear: 2,
    minimumSpeed: 27,
    apexType: 'LATE',
    apexGap: 1,
    firstThrottle: 0.4,
    note: '',
    schools: [],
    givenAway: 0,
    apexOff: 0,
    details: {},
    kerbs: [],
    again: [],
    actions: [],
  };
}

const content: ReferenceContent = { corners: [entry('c1', 300), entry('c2', 1200)], variants: [] };
const corner = (id: string, number: string, at: number) => ({
  id,
  number,
  name: '',
  left: true,
  entry: at,
  apexes: [at + 40],
  exit: at + 90,
  radius: 40,
  doubt: 0,
  angle: 1.5,
  kind: 'BEND' as const,
  complex: 0,
  uncounted: false,
});

let stored: { version: number; content: ReferenceContent; write?: string };
/** Whether answers to writings are lost on their way back. */
let deaf: boolean;
/** Whether writings are refused. */
let refusing: boolean;
let saves: number;
let online: boolean;
let conflict: ReferenceContent | null;
let puts: number;
let role: ReferenceView['role'];

function view(): ReferenceView {
  return {
    id: 'r1',
    role,
    name: 'R',
    layoutId: 'l1',
    circuit: 'Ring',
    layout: 'Full',
    layoutVersion: 1,
    length: LENGTH,
    vehicleId: 'v1',
    vehicle: 'V',
    motorcycle: false,
    width: 1.9,
    gears: 6,
    vehicleChanged: false,
    laidInPart: false,
    oldLine: false,
    lost: [],
    recomputed: false,
    revision: 1,
    changed: false,
    planned: { seconds: 90, unmade: 0 },
    corners: [corner('c1', '1', 340), corner('c2', '2', 1240)],
    things: { landmarks: [], kerbs: [], zones: [], limits: [], places: [], severities: [] },
    thingVersions: { board: 3 },
    doubts: [],
    ahead: [],
    newerLayout: false,
    placed: false,
    zone: 'UTC',
    working: stored,
    draft: content,
    saved: content,
    words: [],
  };
}

const reply = (body: unknown, status = 200) =>
  new Response(JSON.stringify(body), { status, headers: { 'content-type': 'application/json' } });

/** How many questions are on their way. */
let underWay = 0;

function answer(input: Request): Promise<Response> {
  underWay++;
  return serve(input).finally(() => underWay--);
}

/** The real clock: reading a body takes turns that a made one knows nothing of. */
const turn = globalThis.setTimeout;

/** Lets the made time go on until nothing is asked any more, however slow the machine. */
async function quiet() {
  for (let calm = 0; calm < 3; calm = underWay ? 0 : calm + 1) {
    await new Promise((done) => turn(done));
    await vi.advanceTimersByTimeAsync(300);
  }
}

/** What each question said of an action moved by hand. */
let told: (string | null)[] = [];

interface Chosen {
  entries: CornerEntry[];
  corner: string;
  day?: Variant['day'];
}
/** Schools that were taken. */
let asked: Chosen[] = [];

async function serve(input: Request): Promise<Response> {
  if (!online) throw new TypeError('no network');
  const path = new URL(input.url).pathname;
  if (path.endsWith('r1/answer')) {
    told.push(new URL(input.url).searchParams.get('moved'));
    return reply({ entry: await input.json(), answer: {}, words: { full: 'Brake.', pocket: '' } });
  }
  if (path.endsWith('/working')) {
    puts++;
    const body = (await input.json()) as { version: number; content: ReferenceContent; write: string };
    if (refusing) return reply({ detail: 'The turn-in lies behind the apex.' }, 422);
    if (conflict) stored = { version: 9, content: conflict };
    if (body.version !== stored.version) return reply({ detail: 'first', current: stored }, 409);
    stored = { version: body.version + 1, content: body.content, write: body.write };
    if (deaf) throw new TypeError('the answer was lost');
    return reply(stored);
  }
  if (path.endsWith('/revisions')) {
    saves++;
    return reply({ ...view(), revision: 2 });
  }
  if (path.endsWith('/laid-anew')) {
    const body = (await input.json()) as { use: { gates: { metres: number }[] } };
    const metres = body.use.gates[0]?.metres ?? 0;
    if (metres > 2.4) return reply({ detail: 'It cannot be met.' }, 400);
    return reply({ lapBefore: 90, lapAfter: 90 + metres / 10, from: 0, metres: 10, step: 1, before: [], after: [] });
  }
  if (path.endsWith('/variants/answer')) {
    const body = (await input.json()) as { variant: Variant; entry: CornerEntry; edited?: CornerEntry };
    const set = body.edited
      ? [{ corner: body.entry.corner, points: body.edited.points, note: '' }]
      : body.variant.entries;
    const proposed = moved(body.entry, 'BRAKE', (station(body.entry, 'BRAKE') ?? 0) - 9, LENGTH);
    return reply({
      variant: { ...body.variant, entries: set },
      adjusted: { entry: body.edited ?? proposed, proposed, changes: [], byHand: [] },
      answer: { entry: body.edited ?? proposed, answer: {}, words: { full: 'Wet.', pocket: '' } },
      lapTime: 100,
      ownLine: false,
    });
  }
  if (path.endsWith('/choices/taken')) {
    const body = (await input.json()) as Chosen;
    asked.push(body);
    return reply(body.entries.map((e) => ({ ...e, schools: ['TO_APEX'] })));
  }
  if (path.endsWith('/road') || path.endsWith('/lap')) return reply({});
  return reply(view());
}

beforeEach(() => {
  vi.useFakeTimers();
  const kept = new Map<string, string>();
  vi.stubGlobal('localStorage', {
    getItem: (k: string) => kept.get(k) ?? null,
    setItem: (k: string, v: string) => kept.set(k, v),
    removeItem: (k: string) => kept.delete(k),
  });
  vi.stubGlobal('document', { cookie: '' });
  vi.stubGlobal('location', { href: 'http://localhost/' });
  server.answer = answer;
  stored = { version: 3, content };
  online = true;
  deaf = false;
  refusing = false;
  saves = 0;
  conflict = null;
  asked = [];
  puts = 0;
  told = [];
  role = 'OWNER';
});

afterEach(async () => {
  await quiet();
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

const brakeOf = (desk: Desk, id = 'c1') => {
  const e = desk.content.corners.find((c) => c.corner === id);
  return e && station(e, 'BRAKE');
};

describe('working on a reference', () => {
  it('opens on the first corner with nothing changed and stores nothing', async () => {
    const desk = await Desk.open('r1');
    await vi.runAllTimersAsync();
    expect(desk.selected).toBe('c1');
    expect(desk.changes).toEqual([]);
    expect(desk.keeping).toBe('kept');
    expect(puts).toBe(0);
  });

  it('stores a drag once, some time after it ends, and undoes it as one step', async () => {
    const desk = await Desk.open('r1');
    for (let i = 1; i <= 12; i++) desk.move('BRAKE', 300 + i, 'drag c1 BRAKE');
    desk.settle();
    expect(desk.keeping).toBe('waiting');
    await vi.runAllTimersAsync();
    expect(puts).toBe(1);
    expect(desk.keeping).toBe('kept');
    expect(brakeOf(desk)).toBe(312);
    expect(desk.changes).toEqual(['c1']);
    desk.undo();
    expect(brakeOf(desk)).toBe(300);
    expect(desk.canUndo).toBe(false);
    desk.redo();
    expect(brakeOf(desk)).toBe(312);
  });

  it('keeps edits through a lost connection and a reload, and stores them when it is back', async () => {
    const desk = await Desk.open('r1');
    online = false;
    desk.nudge('BRAKE', 5);
    await vi.advanceTimersByTimeAsync(1000);
    expect(desk.keeping).toBe('offline');
    online = true;
    const again = await Desk.open('r1');
    expect(again.restored).toBe(true);
    expect(brakeOf(again)).toBe(305);
    await vi.advanceTimersByTimeAsync(1000);
    expect(again.keeping).toBe('kept');
    again.undo();
    expect(brakeOf(again)).toBe(300);
  });

  it('puts beside its own what only another window changed, as a step that can be undone', async () => {
    const desk = await Desk.open('r1');
    conflict = { corners: [{ ...entry('c1', 300), note: 'careful' }, entry('c2', 1190)], variants: [] };
    desk.nudge('BRAKE', 5);
    await vi.advanceTimersByTimeAsync(700);
    conflict = null;
    await vi.advanceTimersByTimeAsync(2000);
    expect(desk.conflict).toBeNull();
    // A note, and of the other corner marker, turn-in and apex.
    expect(desk.joined).toBe(4);
    expect(stored.version).toBe(10);
    expect(stored.content.corners.map((e) => station(e as CornerEntry, 'BRAKE'))).toEqual([305, 1190]);
    // Each corner is driven by one of them alone.
    expect(desk.mixed).toEqual([]);
    desk.undo();
    expect(brakeOf(desk)).toBe(305);
    expect(brakeOf(desk, 'c2')).toBe(1200);
  });

  it('names the corners that are driven by something of each window, until they are looked at', async () => {
    const desk = await Desk.open('r1');
    const release = (e: ReturnType<typeof entry>) => ({
      ...e,
      points: e.points.map((p) => (p.kind === 'TURN_IN' ? { ...p, station: p.station + 9 } : p)),
    });
    conflict = {
      corners: [release(entry('c1', 300)), { ...entry('c2', 1200), note: 'careful' }],
      variants: [],
    } as typeof conflict;
    desk.nudge('BRAKE', 5);
    await vi.advanceTimersByTimeAsync(700);
    conflict = null;
    await vi.advanceTimersByTimeAsync(2000);
    expect(desk.conflict).toBeNull();
    expect(desk.mixed).toEqual(['c1']);
    await desk.lookAt('c1');
    expect(desk.mixed).toEqual([]);
    expect(desk.selected).toBe('c1');
  });

  it('shows both sides of a conflict and takes what is chosen as a step that can be undone', async () => {
    const desk = await Desk.open('r1');
    conflict = { corners: [entry('c1', 310), entry('c2', 1190)], variants: [] };
    desk.nudge('BRAKE', 5);
    await vi.advanceTimersByTimeAsync(1000);
    expect(desk.conflict?.theirs).toEqual(conflict);
    expect(desk.conflict && station(desk.conflict.mine.corners[0] as CornerEntry, 'BRAKE')).toBe(305);
    const theirs = conflict;
    conflict = null;
    desk.resolve(theirs);
    await vi.advanceTimersByTimeAsync(1000);
    expect(stored).toMatchObject({ version: 10, content: theirs });
    expect(brakeOf(desk, 'c2')).toBe(1190);
    desk.undo();
    expect(brakeOf(desk)).toBe(305);
  });

  it('knows its own writing again when only the answer was lost', async () => {
    const desk = await Desk.open('r1');
    deaf = true;
    desk.nudge('BRAKE', 5);
    await vi.advanceTimersByTimeAsync(1000);
    expect(stored.version).toBe(4);
    expect(desk.keeping).toBe('offline');
    deaf = false;
    desk.nudge('BRAKE', 2);
    await vi.advanceTimersByTimeAsync(5000);
    expect(desk.conflict).toBeNull();
    expect(desk.keeping).toBe('kept');
    expect(stored.version).toBe(5);
    expect(station(stored.content.corners[0] as CornerEntry, 'BRAKE')).toBe(307);
  });

  it.each(['before', 'after'])(
    'knows its own writing again that arrived %s a reload read the reference',
    async (when) => {
      const desk = await Desk.open('r1');
      deaf = true;
      desk.nudge('BRAKE', 5);
      await vi.advanceTimersByTimeAsync(1000);
      deaf = false;
      desk.nudge('BRAKE', 3);
      await vi.advanceTimersByTimeAsync(200);
      vi.clearAllTimers();
      const arrived = stored;
      expect(arrived.version).toBe(4);
      if (when === 'after') stored = { version: 3, content };
      const again = await Desk.open('r1');
      stored = arrived;
      expect(again.conflict).toBeNull();
      expect(brakeOf(again)).toBe(308);
      await vi.advanceTimersByTimeAsync(1000);
      expect(again.conflict).toBeNull();
      expect(again.keeping).toBe('kept');
      expect(stored.version).toBe(5);
      expect(station(stored.content.corners[0] as CornerEntry, 'BRAKE')).toBe(308);
    },
  );

  it('sees that another was first after an answer was lost', async () => {
    const desk = await Desk.open('r1');
    deaf = true;
    desk.nudge('BRAKE', 5);
    await vi.advanceTimersByTimeAsync(1000);
    deaf = false;
    stored = { version: 5, content: { corners: [entry('c1', 280), entry('c2', 1200)], variants: [] }, write: 'w' };
    await vi.advanceTimersByTimeAsync(5000);
    expect(desk.conflict?.version).toBe(5);
  });

  it('saves no revision while what was changed is not stored, and says why', async () => {
    const desk = await Desk.open('r1');
    refusing = true;
    desk.nudge('BRAKE', 5);
    await expect(desk.save('later')).rejects.toThrow('The turn-in lies behind the apex.');
    expect(saves).toBe(0);
    expect(brakeOf(desk)).toBe(305);
    refusing = false;
    online = false;
    await expect(desk.save('later')).rejects.toThrow('not stored');
    online = true;
    await desk.save('later');
    expect(saves).toBe(1);
    expect(stored.version).toBe(4);
  });

  it('takes points from the draft when a corner is braked for again', async () => {
    const desk = await Desk.open('r1');
    desk.slowBy('FLAT');
    expect(desk.entry?.points.map((p) => p.kind)).toEqual(['TURN_IN', 'APEX']);
    expect(desk.entry?.firstEffort).toBe(0);
    desk.slowBy('BRAKE');
    expect(brakeOf(desk)).toBe(300);
    expect(desk.entry?.firstEffort).toBe(0.9);
  });

  it('takes a corner as drafted anew, keeps what was written, and undoes it as one step', async () => {
    const desk = await Desk.open('r1');
    desk.edit((e) => ({ ...e, note: 'mine' }));
    desk.settle();
    const drafted = desk.drafted;
    if (!drafted) throw new Error('no draft');
    desk.view = {
      ...desk.view,
      draft: {
        ...desk.view.draft,
        corners: [moved(drafted, 'BRAKE', 111, LENGTH), ...desk.view.draft.corners.slice(1)],
      },
    };
    desk.showDraft = true;
    desk.takeDrafted();
    expect(brakeOf(desk)).toBe(111);
    expect(desk.entry?.note).toBe('mine');
    expect(desk.showDraft).toBe(false);
    desk.undo();
    expect(brakeOf(desk)).not.toBe(111);
    await vi.runAllTimersAsync();
  });

  it('goes round the corners both ways', async () => {
    const desk = await Desk.open('r1');
    await desk.step(1);
    expect(desk.selected).toBe('c2');
    await desk.step(1);
    expect(desk.selected).toBe('c1');
    await desk.step(-1);
    expect(desk.selected).toBe('c2');
  });
});

const wet: Variant = {
  id: 'v1',
  kind: 'WET',
  name: '',
  day: { grip: 0.7, extraMass: 0, windSpeed: 0, windFrom: 0, drag: 1, downforce: 1, hour: '' },
  entries: [],
};

describe('writing a score', () => {
  const lift = (desk: Desk) => desk.content.corners[0]?.actions[0];

  it('says which action was moved by hand until that is answered, and not of an amount', async () => {
    const desk = await Desk.open('r1');
    const made = desk.makeAction('LIFT', 200, 0.6);
    if (!made) throw new Error('no lift');
    expect(desk.inHand).toBe('lift-1');
    await quiet();
    told = [];
    desk.putAction({ ...made, station: 190 }, true);
    await quiet();
    expect(told).toEqual(['lift-1']);
    desk.putAction({ ...made, station: 190, amount: 0.3 }, false);
    await quiet();
    expect(told.at(-1)).toBeNull();
    expect(lift(desk)?.amount).toBe(0.3);
    desk.undo();
    expect(lift(desk)?.amount).toBe(0.6);
  });

  it('draws a sight line to what the eyes in hand are on', async () => {
    const desk = await Desk.open('r1');
    const target = { kind: 'BESIDE' as const, thing: 'post', spoken: 'post', other: '', otherSpoken: '', number: 0 };
    const eyes = { ...made('EYES', 180, 'eyes-1', 3), target };
    const held = vi.spyOn(desk, 'held', 'get');
    const scored = (action: Action) => ({ action }) as ScoredAction;
    held.mockReturnValue(scored(eyes));
    expect(desk.sight).toMatchObject({ cue: { kind: 'INTO_VIEW', thing: 'post' }, station: 180 });
    held.mockReturnValue(scored({ ...eyes, target: undefined }));
    expect(desk.sight).toBeNull();
    held.mockReturnValue(undefined);
    expect(desk.sight).toBeNull();
  });

  it('a lift lasts half a second, where nothing else begins before', async () => {
    const desk = await Desk.open('r1');
    desk.makeAction('LIFT', 200, 0.99);
    // 40 m/s where nothing is planned yet; no more than 95 % can be kept.
    expect(lift(desk)).toMatchObject({ until: 220, amount: 0.95 });
    await vi.runAllTimersAsync();
  });

  it('the first braking of a corner that had none becomes its marker', async () => {
    const desk = await Desk.open('r1');
    desk.slowBy('FLAT');
    desk.makeAction('BRAKE', 280, 0.4);
    expect(desk.entry?.slowing).toBe('BRAKE');
    expect(desk.entry?.actions).toHaveLength(0);
    expect(brakeOf(desk)).toBe(280);
    expect(desk.entry?.points.find((p) => p.kind === 'BRAKE')?.play?.amount).toBe(0.4);
    expect(desk.entry?.points.map((p) => p.kind)).toContain('RELEASE');
    expect(desk.inHand).toBe('brake');
    // What every corner needs is not taken out; another braking is.
    desk.dropAction('brake');
    expect(brakeOf(desk)).toBe(280);
    const second = desk.makeAction('BRAKE', 320, 0.2);
    expect(second?.id).toBe('brake-1');
    desk.dropAction('brake-1');
    expect(desk.entry?.actions).toHaveLength(0);
    await vi.runAllTimersAsync();
  });

  it('is written for another day only, and by no viewer', async () => {
    const desk = await Desk.open('r1');
    desk.putVariant(wet);
    await desk.go('v1');
    const before = JSON.stringify(desk.content.corners);
    expect(desk.makeAction('LIFT', 200)?.kind).toBe('LIFT');
    await vi.runAllTimersAsync();
    expect(JSON.stringify(desk.content.corners)).toBe(before);
    role = 'VIEWER';
    const other = await Desk.open('r1');
    expect(other.makeAction('LIFT', 200)).toBeNull();
    await vi.runAllTimersAsync();
  });
});

describe('another day', () => {
  it('shows what is proposed, leaves the reference alone and keeps what is set by hand', async () => {
    const desk = await Desk.open('r1');
    desk.putVariant(wet);
    await desk.go('v1');
    expect(station(desk.entry as CornerEntry, 'BRAKE')).toBe(291);
    expect(brakeOf(desk)).toBe(300);
    desk.move('BRAKE', 285);
    await vi.runAllTimersAsync();
    expect(desk.variant?.entries).toHaveLength(1);
    expect(station(desk.entry as CornerEntry, 'BRAKE')).toBe(285);
    expect(brakeOf(desk)).toBe(300);
    await desk.go('');
    expect(station(desk.entry as CornerEntry, 'BRAKE')).toBe(300);
    expect(stored.content.variants[0]?.entries).toHaveLength(1);
  });

  it('passes other places across the road than the reference', async () => {
    const gate = { id: 'g', station: 300, left: true, metres: 2, tolerance: 0.3, over: 0 };
    stored = { version: 3, content: { ...content, use: { opened: [], gates: [gate] } } };
    const desk = await Desk.open('r1');
    desk.putVariant(wet);
    await desk.go('v1');
    expect(desk.gates).toEqual([gate]);

    desk.moving = { ...gate, metres: 4, over: 60 };
    await desk.settleGate();
    desk.makeGate(120, false, 1);
    await vi.runAllTimersAsync();
    expect(desk.gates.map((g) => [g.metres, g.over])).toEqual([
      [4, 60],
      [1, 0],
    ]);
    expect(desk.laid).toBeNull();
    expect(desk.content.use?.gates).toEqual([gate]);

    // What the day has by itself goes first: the reference's place is back; then that is left out.
    await desk.dropGate('g');
    expect(desk.gates.map((g) => g.metres)).toEqual([2, 1]);
    await desk.dropGate('g');
    expect(desk.gates.map((g) => g.metres)).toEqual([1]);
    expect(desk.variant?.day.gates?.without).toEqual(['g']);
    desk.undo();
    expect(desk.gates).toHaveLength(2);
    await desk.go('');
    expect(desk.gates).toEqual([gate]);
  });

  it('is one step of undo, and gone when it is undone', async () => {
    const desk = await Desk.open('r1');
    desk.putVariant(wet);
    await desk.go('v1');
    desk.undo();
    expect(desk.content.variants).toEqual([]);
    expect(desk.day).toBe('');
  });
});

describe('taking a school', () => {
  it('changes all corners that the answer names as one step', async () => {
    const desk = await Desk.open('r1');
    await desk.takeSchool('TO_APEX');
    expect(desk.content.corners.map((e) => e.schools)).toEqual([['TO_APEX'], ['TO_APEX']]);
    desk.undo();
    expect(desk.content.corners.map((e) => e.schools)).toEqual([[], []]);
    expect(desk.canUndo).toBe(false);
  });

  it('takes it for the day alone while a day is worked on', async () => {
    const desk = await Desk.open('r1');
    desk.putVariant(wet);
    await desk.go('v1');
    const before = JSON.stringify(desk.content.corners);
    await desk.takeSchool('TO_APEX');
    await vi.runAllTimersAsync();
    expect(asked.at(-1)).toMatchObject({ day: wet.day, corner: 'c1' });
    // Asked of the corner as that day drives it, nine metres sooner.
    expect(station(asked.at(-1)?.entries[0] as CornerEntry, 'BRAKE')).toBe(291);
    expect(desk.entry?.schools).toEqual(['TO_APEX']);
    expect(desk.variant?.entries).toHaveLength(1);
    expect(JSON.stringify(desk.content.corners)).toBe(before);
  });
});

describe('a coach', () => {
  it('tries without storing anything, and can put it back', async () => {
    role = 'COACH';
    const desk = await Desk.open('r1');
    desk.nudge('BRAKE', -5);
    await vi.runAllTimersAsync();
    expect(desk.tried).toBe(true);
    expect(puts).toBe(0);
    expect(localStorage.getItem('marvek.reference.r1')).toBeNull();
    desk.giveUp();
    expect(desk.tried).toBe(false);
    expect(brakeOf(desk)).toBe(300);
  });

  it('as a viewer moves nothing', async () => {
    role = 'VIEWER';
    const desk = await Desk.open('r1');
    desk.nudge('BRAKE', -5);
    expect(brakeOf(desk)).toBe(300);
  });
});

describe('a landmark dragged here', () => {
  const board = { id: 'board', station: 200, label: '100' } as never;
  const sent: { expected: Record<string, number> }[] = [];
  const answering = (status: number, now: number) => {
    const before = server.answer;
    sent.length = 0;
    server.answer = async (request) => {
      if (request.method === 'POST' && request.url.includes('/survey')) {
        sent.push(await request.json());
        const body =
          status === 200
            ? { versions: { board: 4 }, things: { landmarks: [{ ...(board as object), station: 230 }] } }
            : { status, title: 'x', detail: 'Another window changed the same thing.' };
        return Response.json(body, { status });
      }
      if (request.method === 'GET' && request.url.includes('/api/layouts/'))
        return Response.json({
          versions: { board: now },
          things: { landmarks: [{ ...(board as object), station: 250 }] },
        });
      return before(request);
    };
  };

  it('names the version that it was seen in, and the next drag the one after', async () => {
    const desk = await Desk.open('r1');
    answering(200, 4);
    await desk.moveLandmark(board, 230);
    await desk.moveLandmark(board, 231);
    expect(sent.map((s) => s.expected)).toEqual([{ board: 3 }, { board: 4 }]);
  });

  it('does not overwrite what another window did, and shows it', async () => {
    const desk = await Desk.open('r1');
    answering(409, 7);
    await desk.moveLandmark(board, 230);
    expect(desk.problem?.status).toBe(409);
    expect(desk.landmarks.map((l) => l.station)).toEqual([250]);
  });

  it('asks after a rest what half a metre either way costs at a gate', async () => {
    const gate = { id: 'g', station: 300, left: true, metres: 2, tolerance: 0.3, over: 0 };
    stored = { version: 3, content: { ...content, use: { opened: [], gates: [gate] } } };
    const desk = await Desk.open('r1');
    desk.costGate('g');
    expect(desk.gateCosts).toBeNull();
    await vi.advanceTimersByTimeAsync(600);
    // Against the line at hand; farther cannot be met here.
    expect(desk.gateCosts?.nearer).toBeCloseTo(0.15);
    expect(desk.gateCosts?.farther).toBeNull();
    desk.leaveLaid();
    expect(desk.gateCosts).toBeNull();
    // Without an answer nothing is said.
    online = false;
    desk.costGate('g');
    await vi.advanceTimersByTimeAsync(600);
    expect(desk.gateCosts).toBeNull();
  });
});
