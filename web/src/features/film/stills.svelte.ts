import { get, set } from 'idb-keyval';
import {
  api,
  ask,
  asProblem,
  sendPhoto,
  type Corner,
  type Landmark,
  type LensView,
  type Problem,
  type ReferenceView,
  type StillPlace,
} from '../../api/api';
import { newId } from '../../kit/id';
import { cornerAt, LANDMARKS, newLandmark, nothing, type LandmarkKind } from '../../road/things';
import { tell } from '../../words/tell';

/** A thing pressed in a still: where in the picture (-1 to 1 across, 0 to 1 down), and where the vehicle was. */
export interface Sight {
  station: number;
  across: number;
  down: number;
}

const LENS = tell('stills.film_lens');
/** Usual for a camera that keeps straight lines straight (common practice, no source). */
const USUAL: LensView = { projection: 'STRAIGHT', degrees: 90, turned: 0 };
// Metres ahead and behind in which a thing may be in the picture.
const AHEAD = 250;
const BEHIND = 15;
/** Share of the picture's width that is kept of a still. */
export const PART = 0.36;

/** A kind whose things are named by what is written on them needs that said. */
export const titled = (kind: LandmarkKind) => kind === 'BOARD' || kind === 'OTHER';

/** Things of the survey by stills of a film: placed by two, and seen to come and go. */
export class Stills {
  lens = $state.raw<LensView>(USUAL);
  first = $state.raw<Sight | null>(null);
  second = $state.raw<Sight | null>(null);
  place = $state.raw<StillPlace | null>(null);
  problem = $state.raw<Problem | null>(null);
  /** What was last put on the survey, and how it was before; null for a new one. */
  last = $state.raw<{ now: Landmark; before: Landmark | null; said: string } | null>(null);
  view = $state.raw<ReferenceView | null>(null);
  busy = $state(false);
  /** The thing that is spoken of: to say where it is seen, or to tell the lens by it. */
  held = $state('');
  /** Things pressed to tell the lens by; null while that is not asked. */
  known = $state.raw<(Sight & { landmark: string })[] | null>(null);
  private asked = 0;

  constructor(private readonly reference: string) {}

  /**
   * Begins with a film.
   *
   * @param lens its own where it is known, which is not kept for other films
   */
  async open(lens: LensView | null = null): Promise<void> {
    try {
      this.lens = lens ?? (await get<LensView>(LENS).catch(() => undefined)) ?? USUAL;
      this.view = await ask(api.GET('/api/references/{id}', { params: { path: { id: this.reference } } }));
    } catch (e) {
      this.problem = asProblem(e);
    }
  }

  get landmarks(): Landmark[] {
    return this.view?.things.landmarks ?? [];
  }

  /** Things that may be in the picture from a place, the nearest first. */
  inReach(at: number, length: number): Landmark[] {
    const ahead = (l: Landmark) => (((l.station - at + BEHIND) % length) + length) % length;
    return this.landmarks.filter((l) => ahead(l) < AHEAD + BEHIND).sort((a, b) => ahead(a) - ahead(b));
  }

  setLens(change: Partial<LensView>): void {
    this.lens = { ...this.lens, ...change };
    void set(LENS, this.lens).catch(() => undefined);
    this.again();
  }

  /** A press on the picture. */
  async press(lap: string, sight: Sight, rate: number): Promise<void> {
    this.problem = null;
    if (this.known) {
      if (!this.held) return;
      this.known = [...this.known.filter((k) => k.landmark !== this.held), { ...sight, landmark: this.held }];
      this.held = '';
      if (this.known.length === 2) await this.tellLens(lap);
      return;
    }
    if (!this.first || this.place) {
      this.first = sight;
      this.second = null;
      this.place = null;
      return;
    }
    this.second = sight;
    await this.reckon(lap, rate);
  }

  private async reckon(lap: string, rate: number) {
    const { first, second } = this;
    if (!first || !second) return;
    const asked = ++this.asked;
    // Sights may be pressed going backwards, too.
    const [one, two] = first.station <= second.station ? [first, second] : [second, first];
    const of = ({ station, across }: Sight) => ({ station, across });
    try {
      const place = await ask(
        api.POST('/api/laps/{id}/stills', {
          params: { path: { id: lap } },
          body: { lens: this.lens, first: of(one), second: of(two), rate },
        }),
      );
      if (asked === this.asked) this.place = place;
    } catch (e) {
      if (asked !== this.asked) return;
      this.problem = asProblem(e);
      this.second = null;
    }
  }

  /** Forgets what was pressed. */
  again(): void {
    this.asked++;
    this.first = null;
    this.second = null;
    this.place = null;
    this.problem = null;
  }

  private async tellLens(lap: string) {
    const known = (this.known ?? []).map(({ landmark, station, across }) => ({ landmark, station, across }));
    this.known = [];
    try {
      const lens = await ask(
        api.POST('/api/laps/{id}/lens', {
          params: { path: { id: lap } },
          body: { projection: this.lens.projection, known },
        }),
      );
      this.known = null;
      this.setLens(lens);
    } catch (e) {
      this.problem = asProblem(e);
    }
  }

  /** Puts the thing that two stills show on the survey, with a part of the picture where that is wished. */
  async make(kind: LandmarkKind, label: string, corners: Corner[], picture: Blob | null): Promise<void> {
    const at = this.place;
    const view = this.view;
    if (!at || !view) return;
    const corner = cornerAt(corners, view.length, at.station);
    const thing: Landmark = {
      ...newLandmark(kind, Math.min(at.station, view.length - 0.01), at.left, corner?.id ?? '', label),
      out: Math.round(at.out * 10) / 10,
    };
    await this.put(thing, null, tell('stills.put_on_the_survey', { word: LANDMARKS[kind].word }), picture);
    if (!this.problem) this.again();
  }

  /** Says from where the held thing is seen, or until where. */
  async seen(change: { comes?: number; leaves?: number }): Promise<void> {
    const before = this.landmarks.find((l) => l.id === this.held);
    if (!before) return;
    const word = 'comes' in change ? tell('stills.comes_into_view') : tell('stills.leaves_the_view');
    await this.put(
      { ...before, seen: { ...before.seen, ...change } },
      before,
      tell('stills.where_it_is_noted', { word }),
      null,
    );
    if (!this.problem) this.held = '';
  }

  async takeBack(): Promise<void> {
    const last = this.last;
    if (!last) return;
    if (last.before) await this.put(last.before, null, '', null);
    else await this.send({ put: nothing(), remove: [last.now.id] }, last.now.id);
    if (!this.problem) this.last = null;
  }

  private async put(thing: Landmark, before: Landmark | null, said: string, picture: Blob | null) {
    let now = thing;
    this.problem = null;
    this.busy = true;
    try {
      if (picture && this.view) {
        const photo = newId();
        await sendPhoto(`/api/layouts/${this.view.layoutId}/photos/${photo}`, picture);
        now = { ...thing, photo };
      }
    } catch (e) {
      this.problem = asProblem(e);
      this.busy = false;
      return;
    }
    await this.send({ put: { ...nothing(), landmarks: [now] }, remove: [] }, now.id);
    if (!this.problem) this.last = { now, before, said };
  }

  private async send(change: { put: ReturnType<typeof nothing>; remove: string[] }, id: string) {
    const view = this.view;
    if (!view) return;
    this.problem = null;
    this.busy = true;
    const version = view.thingVersions[id];
    try {
      await ask(
        api.POST('/api/layouts/{id}/survey', {
          params: { path: { id: view.layoutId } },
          body: { id: newId(), ...change, expected: version === undefined ? {} : { [id]: version } },
        }),
      );
      this.view = await ask(api.GET('/api/references/{id}', { params: { path: { id: this.reference } } }));
    } catch (e) {
      this.problem = asProblem(e);
    } finally {
      this.busy = false;
    }
  }
}

/** The part of a still around a press, as a JPEG without anything else in it. */
export async function partOf(video: HTMLVideoElement, sight: Sight): Promise<Blob | null> {
  const { x, y, width, height } = partAround(sight, video.videoWidth, video.videoHeight);
  const canvas = document.createElement('canvas');
  canvas.width = width;
  canvas.height = height;
  canvas.getContext('2d')?.drawImage(video, x, y, width, height, 0, 0, width, height);
  return new Promise((done) => canvas.toBlob(done, 'image/jpeg', 0.85));
}

/** Pixels of the part that is kept around a press, inside the picture. */
export function partAround(sight: Sight, wide: number, high: number) {
  const width = Math.round(wide * PART);
  const height = Math.min(high, Math.round(width * 0.75));
  const inside = (middle: number, size: number, all: number) =>
    Math.round(Math.max(0, Math.min(all - size, middle - size / 2)));
  return {
    x: inside(((sight.across + 1) / 2) * wide, width, wide),
    y: inside(sight.down * high, height, high),
    width,
    height,
  };
}
