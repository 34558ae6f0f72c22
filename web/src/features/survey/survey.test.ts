import { describe, expect, it } from 'vitest';
import { Problem, type LayoutView, type Things } from '../../api/api';
import { shelved, type Letter, type Shelf } from './outbox';
import { inverse, touchedBy, withStep } from './steps';
import { SurveyDesk, type Post } from './survey.svelte';
import { newLandmark, newZone, nothing, type Thing } from '../../road/things';

const corner = {
  id: 'c1',
  number: '1',
  name: '',
  left: true,
  entry: 100,
  apexes: [120],
  exit: 140,
  radius: 40,
  doubt: 0,
  angle: 1,
  kind: 'BEND' as const,
  complex: 0,
  uncounted: false,
};

/** A server that keeps what it is sent, and can be out of reach or refuse. */
class FakeServer implements Post {
  things: Things = nothing();
  versions: Record<string, number> = {};
  corners = [corner];
  cornersVersion = 1;
  applied: string[] = [];
  photos: string[] = [];
  reachable = true;
  /** The next answer gets lost on its way, after the change was applied. */
  loseAnswer = false;
  refuse: Problem | null = null;

  private view(): LayoutView {
    return {
      things: this.things,
      versions: { ...this.versions },
      corners: this.corners,
      cornersVersion: this.cornersVersion,
    } as unknown as LayoutView;
  }
  private answer() {
    if (!this.reachable) throw new Problem(0, 'no answer', null, 'later');
  }
  async load() {
    this.answer();
    return this.view();
  }
  async photo(_: string, letter: Letter & { kind: 'photo' }) {
    this.answer();
    this.photos.push(letter.id);
  }
  async send(_: string, letter: Letter & { kind: 'change' }) {
    this.answer();
    const c = letter.change;
    if (this.refuse) {
      const problem = this.refuse;
      this.refuse = null;
      throw problem;
    }
    for (const [id, version] of Object.entries(c.expected)) {
      if (this.versions[id] !== undefined && this.versions[id] !== version) throw new Problem(409, 'changed', null, '');
    }
    if (!this.applied.includes(c.id)) {
      this.applied.push(c.id);
      this.things = withStep(this.things, { put: c.put, remove: c.remove, corners: null });
      for (const id of touchedBy(c)) this.versions[id] = (this.versions[id] ?? -1) + 1;
      if (c.corners) {
        if (c.cornersVersion !== this.cornersVersion) throw new Problem(409, 'corners changed', null, '');
        this.corners = c.corners as (typeof corner)[];
        this.cornersVersion++;
      }
    }
    if (this.loseAnswer) {
      this.loseAnswer = false;
      throw new Problem(0, 'lost', null, '');
    }
    return this.view();
  }
}

class FakeShelf implements Shelf {
  kept: Letter[] = [];
  async read() {
    return structuredClone(this.kept);
  }
  async write(_: string, letters: Letter[], done: string[]) {
    this.kept = structuredClone(shelved(this.kept, letters, done));
  }
}

const board = (station: number, label = '100') => newLandmark('BOARD', station, true, 'c1', label);

async function idle(desk: SurveyDesk) {
  for (let i = 0; i < 50 && desk.waiting && !desk.offline; i++) await new Promise((r) => setTimeout(r, 1));
}

async function opened(server = new FakeServer(), shelf = new FakeShelf()) {
  const desk = new SurveyDesk('l', shelf, server);
  await desk.open();
  return { desk, server, shelf };
}

describe('steps', () => {
  it('are taken back by their inverse, whatever they did', () => {
    const a = board(10);
    const b = board(20);
    const zone = newZone('DAMP', 5, 9, 'BOTH');
    const before = { ...nothing(), landmarks: [a, b] };
    const step = {
      put: { ...nothing(), landmarks: [{ ...a, station: 11 }], zones: [zone] },
      remove: [b.id],
      corners: null,
    };
    const after = withStep(before, step);
    expect(after.landmarks.map((l) => l.station)).toEqual([11]);
    const back = withStep(after, inverse(before, [], step));
    const byId = (list: Thing[]) => [...list].sort((x, y) => x.id.localeCompare(y.id));
    expect(byId(back.landmarks)).toEqual(byId(before.landmarks));
    expect(back.zones).toEqual([]);
  });
});

describe('a survey being worked on', () => {
  it('shows a change at once, sends it, and takes it back', async () => {
    const { desk, server } = await opened();
    desk.put('landmarks', [board(50)]);
    expect(desk.things.landmarks).toHaveLength(1);
    await idle(desk);
    expect(server.things.landmarks).toHaveLength(1);
    desk.undo();
    await idle(desk);
    expect(server.things.landmarks).toHaveLength(0);
    desk.redo();
    await idle(desk);
    expect(server.things.landmarks).toHaveLength(1);
    desk.close();
  });

  it('counts changes with one key as one for undo', async () => {
    const { desk, server } = await opened();
    const b = board(50);
    desk.put('landmarks', [b]);
    for (let s = 51; s < 60; s++) desk.put('landmarks', [{ ...b, station: s }], 'drag');
    await idle(desk);
    expect(server.things.landmarks[0]?.station).toBe(59);
    desk.undo();
    await idle(desk);
    expect(server.things.landmarks[0]?.station).toBe(50);
    desk.close();
  });

  it('keeps changes without a connection over a reload, and sends each once', async () => {
    const { desk, server, shelf } = await opened();
    server.reachable = false;
    desk.put('landmarks', [board(10)]);
    desk.put('landmarks', [board(20)]);
    const photo = desk.addPhoto(new Blob(['x']));
    await new Promise((r) => setTimeout(r, 5));
    expect(desk.offline).toBe(true);
    expect(server.things.landmarks).toHaveLength(0);
    desk.close();

    server.reachable = true;
    const again = new SurveyDesk('l', shelf, server);
    await again.open();
    expect(again.things.landmarks).toHaveLength(2);
    await idle(again);
    expect(server.things.landmarks).toHaveLength(2);
    expect(server.photos).toEqual([photo]);
    expect(shelf.kept).toEqual([]);
    again.close();
  });

  it('sends again what was applied when only the answer got lost, and nothing is doubled', async () => {
    const { desk, server, shelf } = await opened();
    server.loseAnswer = true;
    desk.put('landmarks', [board(10)]);
    await new Promise((r) => setTimeout(r, 5));
    expect(desk.offline).toBe(true);
    desk.close();
    const again = new SurveyDesk('l', shelf, server);
    await again.open();
    await idle(again);
    expect(server.applied).toHaveLength(1);
    expect(again.things.landmarks).toHaveLength(1);
    again.close();
  });

  it('says so when another window was first, and shows what stands there', async () => {
    const { desk, server } = await opened();
    const b = board(10);
    desk.put('landmarks', [b]);
    await idle(desk);
    server.things = { ...server.things, landmarks: [{ ...b, station: 77 }] };
    server.versions[b.id] = 5;
    desk.put('landmarks', [{ ...b, station: 12 }]);
    await idle(desk);
    expect(desk.problem?.status).toBe(409);
    expect(desk.things.landmarks[0]?.station).toBe(77);
    desk.makeAgain();
    await idle(desk);
    expect(desk.problem).toBeNull();
    expect(server.things.landmarks[0]?.station).toBe(12);
    desk.close();
  });

  it('keeps what is to be sent when nobody is signed in, and says so', async () => {
    const { desk, server, shelf } = await opened();
    server.refuse = new Problem(401, 'You are not signed in.', null, 'Sign in first.');
    desk.put('landmarks', [board(10)]);
    await idle(desk);
    expect(desk.problem?.remedy).toBe('Sign in first.');
    expect(shelf.kept).toHaveLength(1);
    await desk.flush();
    expect(server.things.landmarks).toHaveLength(1);
    expect(shelf.kept).toHaveLength(0);
    desk.close();
  });

  it('leaves what another window has on the shelf', async () => {
    const server = new FakeServer();
    const shelf = new FakeShelf();
    const { desk: one } = await opened(server, shelf);
    const { desk: two } = await opened(server, shelf);
    server.reachable = false;
    one.put('landmarks', [board(10)]);
    two.put('landmarks', [board(20)]);
    one.put('landmarks', [board(30)]);
    await new Promise((r) => setTimeout(r, 5));
    expect(shelf.kept).toHaveLength(3);
    one.close();
    two.close();
    server.reachable = true;
    const { desk: again } = await opened(server, shelf);
    await idle(again);
    expect(server.things.landmarks.map((l) => l.station).sort()).toEqual([10, 20, 30]);
    expect(shelf.kept).toEqual([]);
    again.close();
  });

  it('keeps what was refused on the screen with the reason, so that it can be mended', async () => {
    const { desk, server } = await opened();
    const b = board(10);
    desk.put('landmarks', [b]);
    await idle(desk);
    server.refuse = new Problem(422, '900 is out of range.', 'height', 'Give 0 to 200.');
    desk.put('landmarks', [{ ...b, height: 900 }]);
    await idle(desk);
    expect(desk.problem?.remedy).toBe('Give 0 to 200.');
    expect(desk.things.landmarks[0]?.height).toBe(900);
    desk.put('landmarks', [{ ...b, height: 9 }]);
    await idle(desk);
    expect(desk.problem).toBeNull();
    expect(server.things.landmarks[0]?.height).toBe(9);
    desk.close();
  });

  it('changes corners one after the other without colliding with itself', async () => {
    const { desk, server } = await opened();
    desk.arrange([{ ...corner, name: 'A' }]);
    desk.arrange([{ ...corner, name: 'B' }]);
    desk.arrange([{ ...corner, name: 'C' }]);
    await idle(desk);
    expect(desk.problem).toBeNull();
    expect(server.corners[0]?.name).toBe('C');
    desk.undo();
    await idle(desk);
    expect(server.corners[0]?.name).toBe('B');
    desk.close();
  });
});
