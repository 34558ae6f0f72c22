import { api, ask, asProblem, Problem, sendPhoto, type Corner, type LayoutView, type Things } from '../../api/api';
import { browserShelf, letterId, type Letter, type Shelf } from './outbox';
import { History } from '../../kit/history';
import { inverse, merges, touchedBy, withStep, type Step } from './steps';
import { newId } from '../../kit/id';
import { nothing, type Sort, type Thing } from '../../road/things';

export interface Post {
  send(layout: string, letter: Letter & { kind: 'change' }): Promise<LayoutView>;
  photo(layout: string, letter: Letter & { kind: 'photo' }): Promise<void>;
  load(layout: string): Promise<LayoutView>;
}

export const httpPost: Post = {
  send: (layout, letter) =>
    ask(api.POST('/api/layouts/{id}/survey', { params: { path: { id: layout } }, body: letter.change })),
  photo: (layout, letter) => sendPhoto(`/api/layouts/${layout}/photos/${letter.id}`, letter.file),
  load: (layout) => ask(api.GET('/api/layouts/{id}', { params: { path: { id: layout } } })),
};

const RETRY = 4000;
/** No answer, signed out, not allowed for now, too slow, too many. */
const WAITS = [0, 401, 403, 408, 429];
/** Stands among own things for the corners as a whole. */
const CORNERS = '#corners';

/**
 * A survey being worked on: every change shows at once, is kept in the browser until the server has
 * it, is sent in order and once, and can be undone.
 */
export class SurveyDesk {
  view = $state.raw<LayoutView | null>(null);
  things = $state.raw<Things>(nothing());
  corners = $state.raw<Corner[]>([]);
  waiting = $state(0);
  offline = $state(false);
  problem = $state<Problem | null>(null);
  /** A change that the server refused because another was first; it can be made again. */
  aside = $state.raw<Step | null>(null);
  steps = $state(0);

  private readonly history = new History<Step>(1000);
  private letters: Letter[] = [];
  private done: string[] = [];
  private versions: Record<string, number> = {};
  private cornersVersion = 1;
  private sending = false;
  private timer: ReturnType<typeof setTimeout> | null = null;
  private closed = false;

  constructor(
    readonly layout: string,
    private readonly shelf: Shelf = browserShelf(),
    private readonly post: Post = httpPost,
  ) {}

  async open() {
    this.letters = await this.shelf.read(this.layout);
    this.waiting = this.letters.length;
    try {
      this.take(await this.post.load(this.layout));
    } catch (e) {
      this.problem = asProblem(e);
      return;
    }
    for (const letter of this.letters) if (letter.kind === 'change') this.show(letter.change as unknown as Step);
    void this.flush();
  }

  close() {
    this.closed = true;
    if (this.timer) clearTimeout(this.timer);
  }

  get canUndo() {
    return this.steps >= 0 && this.history.canUndo;
  }

  get canRedo() {
    return this.steps >= 0 && this.history.canRedo;
  }

  /** Puts things in place; the same key in a row counts as one change for undo. */
  put(sort: Sort, things: Thing[], key: string | null = null) {
    const put = nothing() as Record<Sort, Thing[]>;
    put[sort] = things;
    this.apply({ put: put as unknown as Things, remove: [], corners: null }, key);
  }

  remove(ids: string[]) {
    this.apply({ put: nothing(), remove: ids, corners: null });
  }

  arrange(corners: Corner[], key: string | null = null) {
    this.apply({ put: nothing(), remove: [], corners }, key);
  }

  apply(step: Step, key: string | null = null) {
    this.history.remember(inverse(this.things, this.corners, step), key);
    this.go(step);
  }

  settle() {
    this.history.settle();
  }

  undo() {
    const step = this.history.before;
    if (!step) return;
    this.history.undo(inverse(this.things, this.corners, step));
    this.go(step);
  }

  redo() {
    const step = this.history.after;
    if (!step) return;
    this.history.redo(inverse(this.things, this.corners, step));
    this.go(step);
  }

  addPhoto(file: Blob): string {
    const id = newId();
    this.enclose({ kind: 'photo', id, file });
    return id;
  }

  private go(step: Step) {
    this.show(step);
    this.steps++;
    const touched = touchedBy(step);
    const waitingFor = this.letters.flatMap((l) => (l.kind === 'change' ? touchedBy(l.change) : []));
    const expected: Record<string, number> = {};
    const own: string[] = [];
    for (const id of touched) {
      const seen = this.versions[id];
      if (waitingFor.includes(id)) own.push(id);
      else if (seen !== undefined) expected[id] = seen;
    }
    if (step.corners && this.letters.some((l) => l.kind === 'change' && l.change.corners)) own.push(CORNERS);
    this.enclose({
      kind: 'change',
      change: {
        id: newId(),
        put: step.put,
        remove: step.remove,
        expected,
        corners: step.corners ?? undefined,
        cornersVersion: step.corners ? this.cornersVersion : undefined,
      },
      own,
    });
  }

  private show(step: Step) {
    this.things = withStep(this.things, step);
    if (step.corners) this.corners = step.corners;
  }

  private enclose(letter: Letter) {
    const last = this.letters[this.letters.length - 1];
    // While one thing is dragged or typed at, only its last state need be sent.
    if (this.letters.length > 1 && last && merges(last, letter)) {
      const merged = letter as Letter & { kind: 'change' };
      const before = last as Letter & { kind: 'change' };
      merged.change.expected = { ...merged.change.expected, ...before.change.expected };
      merged.own = before.own;
      this.letters[this.letters.length - 1] = merged;
      this.done.push(letterId(last));
    } else {
      this.letters.push(letter);
    }
    this.waiting = this.letters.length;
    void this.keep().then(() => this.flush());
  }

  /** Sends what waits, in order; stops where the server does not answer and tries again later. */
  async flush() {
    if (this.sending || this.closed) return;
    this.sending = true;
    try {
      let letter = this.letters[0];
      while (letter && !this.closed) {
        await this.deliver(letter);
        this.putAway();
        this.offline = false;
        await this.keep();
        letter = this.letters[0];
      }
    } catch (e) {
      const problem = asProblem(e);
      if (WAITS.includes(problem.status) || problem.status >= 500) {
        // Nothing is wrong with the change: it waits until somebody is signed in and answered again.
        this.offline = true;
        if (problem.status !== 0) this.problem = problem;
        if (this.timer) clearTimeout(this.timer);
        this.timer = setTimeout(() => void this.flush(), RETRY);
      } else {
        await this.refused(problem);
      }
    } finally {
      this.sending = false;
    }
    if (this.letters.length && !this.offline && !this.closed) void this.flush();
  }

  private async deliver(letter: Letter) {
    if (letter.kind === 'photo') {
      await this.post.photo(this.layout, letter);
      return;
    }
    for (const id of letter.own) {
      const mine = this.versions[id];
      if (mine !== undefined) letter.change.expected[id] = mine;
    }
    if (letter.own.includes(CORNERS)) letter.change.cornersVersion = this.cornersVersion;
    const view = await this.post.send(this.layout, letter);
    const later = this.letters.slice(1);
    this.take(view);
    for (const l of later) if (l.kind === 'change') this.show(l.change as unknown as Step);
    if (!this.aside) this.problem = null;
  }

  /** A change that the server will not have is put aside with its words; the rest goes on. */
  private async refused(problem: Problem) {
    const letter = this.putAway();
    await this.keep();
    if (problem.status === 409 || problem.status === 404) {
      try {
        this.take(await this.post.load(this.layout));
        for (const l of this.letters) if (l.kind === 'change') this.show(l.change as unknown as Step);
      } catch {
        // The words of the refusal matter more than those of a failing reload.
      }
      if (problem.status === 409 && letter?.kind === 'change') {
        const c = letter.change;
        this.aside = { put: c.put, remove: c.remove, corners: c.corners ?? null };
      }
    }
    this.problem = problem;
  }

  /** Makes the change that was refused once more, on what stands now. */
  makeAgain() {
    const step = this.aside;
    this.aside = null;
    this.problem = null;
    if (step) this.apply(step);
  }

  private putAway(): Letter | undefined {
    const letter = this.letters.shift();
    if (letter) this.done.push(letterId(letter));
    this.waiting = this.letters.length;
    return letter;
  }

  private keep(): Promise<void> {
    return this.shelf.write(this.layout, $state.snapshot(this.letters) as Letter[], [...this.done]);
  }

  private take(view: LayoutView) {
    this.view = view;
    this.things = view.things;
    this.corners = view.corners;
    this.versions = { ...view.versions };
    this.cornersVersion = view.cornersVersion;
  }
}
