import createClient, { type Middleware } from 'openapi-fetch';
import type { components, paths } from './generated/api';

type Schemas = components['schemas'];
export type Away = Schemas['Away'];
export type Corner = Schemas['Corner'];
export type CornerEntry = Schemas['CornerEntry'];
export type CornerPoint = Schemas['CornerPoint'];
export type Action = Schemas['Action'];
export type ActionKind = Action['kind'];
export type Cue = Schemas['Cue'];
export type CueKind = Cue['kind'];
export type CueOffer = Schemas['CueOffer'];
export type HeldCue = Schemas['HeldCue'];
export type ScoredAction = Schemas['ScoredAction'];
export type WhatIf = Schemas['WhatIf'];
export type Unwise = Schemas['Unwise'];
export type AmountCurve = Schemas['AmountCurve'];
export type MistakeCurve = Schemas['MistakeCurve'];
export type Dear = Schemas['Dear'];
export type PointKind = CornerPoint['kind'];
export type CornerAnswer = Schemas['CornerAnswer'];
export type AnswerView = Schemas['AnswerView'];
export type Landmark = Schemas['Landmark'];
export type LapView = Schemas['LapView'];
export type SettingDifference = Schemas['SettingDifference'];
export type Doubt = Schemas['Doubt'];
export type EffectView = Schemas['EffectView'];
export type Judgement = Schemas['Judgement'];
export type Kerb = Schemas['Kerb'];
export type KerbClearance = Schemas['KerbClearance'];
export type MarkerReview = Schemas['MarkerReview'];
export type Place = Schemas['Place'];
export type SetupParameter = Schemas['SetupParameter'];
export type SetupSheet = Schemas['SetupSheet'];
export type Setting = Schemas['Setting'];
export type SheetView = Schemas['SheetView'];
export type SunView = Schemas['SunView'];
export type SurveyChange = Schemas['SurveyChange'];
export type Things = Schemas['Things'];
export type TrackLimit = Schemas['TrackLimit'];
export type Zone = Schemas['Zone'];
export type Severity = Schemas['Severity'];
export type ZoneWords = Schemas['ZoneWords'];
export type LayoutSummary = Schemas['LayoutSummary'];
export type LayoutView = Schemas['LayoutView'];
export type PaddockView = Schemas['PaddockView'];
export type Person = Schemas['Person'];
export type Preferences = Schemas['Preferences'];
export type PreviewView = Schemas['PreviewView'];
export type DrivenReach = Schemas['DrivenReach'];
export type RoadUse = Schemas['RoadUse'];
export type UseView = Schemas['UseView'];
export type EdgeView = Schemas['EdgeView'];
export type LaidView = Schemas['LaidView'];
export type Wish = Schemas['Wish'];
export type Gate = Schemas['Gate'];
export type OtherGates = Schemas['OtherGates'];
export type OwnPace = Schemas['OwnPace'];
export type PaceView = Schemas['PaceView'];
export type ReferenceContent = Schemas['ReferenceContent'];
export type ReferenceSummary = Schemas['ReferenceSummary'];
export type ReferenceView = Schemas['ReferenceView'];
export type Job = Schemas['Job'];
export type RecomputationView = Schemas['RecomputationView'];
export type RevisionSummary = Schemas['RevisionSummary'];
export type RoadView = Schemas['RoadView'];
export type SessionView = Schemas['SessionView'];
export type Vehicle = Schemas['Vehicle'];
export type VehicleClass = Schemas['VehicleClass'];
export type VehicleFigures = Schemas['VehicleFigures'];
export type VehicleView = Schemas['VehicleView'];
export type ComparisonView = Schemas['ComparisonView'];
export type Words = Schemas['Words'];
export type Catalogue = Schemas['Catalogue'];
export type Compared = Schemas['Compared'];
export type Outcome = Schemas['Outcome'];
export type Compromise = Schemas['Compromise'];
export type Question = Compared['question'];
export type School = Schemas['SchoolWords']['school'];
export type Detail = Schemas['DetailWords']['detail'];
export type DetailWords = Schemas['DetailWords'];
export type Hazards = Schemas['Hazards'];
export type KerbUse = Schemas['KerbUse'];
export type OverviewView = Schemas['OverviewView'];
export type Pedals = Schemas['Pedals'];
export type RemarkView = Schemas['RemarkView'];
export type SharedWith = Schemas['SharedWith'];
export type Sureness = Schemas['SurenessWords']['sure'];
export type Variant = Schemas['Variant'];
export type VariantView = Schemas['VariantView'];
export type Warning = Schemas['Warning'];
export type RunsView = Schemas['RunsView'];
export type RunLine = Schemas['RunLine'];
export type DayChoice = Schemas['DayChoice'];
export type PartLine = Schemas['PartLine'];
export type LapLine = Schemas['LapLine'];
export type RecordingLine = Schemas['RecordingLine'];
export type MappingColumn = Schemas['Column'];
export type ChannelChoice = Schemas['ChannelChoice'];
export type TraceView = Schemas['TraceView'];
export type LensView = Schemas['LensView'];
export type StillPlace = Schemas['Placed'];
export type DebriefView = Schemas['DebriefView'];
export type CornerFinding = Schemas['CornerFinding'];
export type BandView = Schemas['BandView'];
export type DrivenView = Schemas['DrivenView'];
export type PointFinding = Schemas['PointFinding'];
export type ActionFinding = Schemas['ActionFinding'];
export type PlaceFinding = Schemas['PlaceFinding'];
export type HabitFinding = Schemas['HabitFinding'];
export type ProposalLine = Schemas['ProposalLine'];
export type TrialView = Schemas['TrialView'];
export type WayView = Schemas['WayView'];
export type RehearsalView = Schemas['RehearsalView'];
export type MistakeView = Schemas['MistakeView'];
export type HeartView = Schemas['HeartView'];
export type AskedView = Schemas['AskedView'];
export type ClockView = Schemas['ClockView'];
export type ToldView = Schemas['ToldView'];
export type Performed = Schemas['PerformedView'];
export type TryableView = Schemas['TryableView'];
export type Chapter = Schemas['Chapter'];
export type VehicleFit = Schemas['VehicleFit'];
export type Taken = Schemas['Taken'];
export type CalendarView = Schemas['CalendarView'];
export type EventView = Schemas['EventView'];
export type SessionLine = Schemas['SessionLine'];
export type PlannedSession = Schemas['PlannedSession'];
export type SessionPlan = Schemas['SessionPlan'];
export type PlannedLine = Schemas['PlannedLine'];
export type TrackSession = Schemas['TrackSession'];
export type SessionKind = TrackSession['kind'];
export type SessionDay = Schemas['SessionDay'];
export type Due = Schemas['Due'];
export type Errand = Due['errand'];
export type Told = Schemas['Told'];
export type Felt = NonNullable<Told['felt']>;
export type LogLine = Schemas['LogLine'];
export type FeltView = Schemas['FeltView'];

/** A refusal in words. */
export class Problem extends Error {
  constructor(
    readonly status: number,
    what: string,
    readonly where: string | null,
    readonly remedy: string,
    readonly kind: string | null = null,
    readonly current: unknown = null,
  ) {
    super(what);
  }
}

function cookie(name: string): string | null {
  const found = document.cookie.split('; ').find((c) => c.startsWith(name + '='));
  return found ? decodeURIComponent(found.slice(name.length + 1)) : null;
}

const csrf: Middleware = {
  onRequest({ request }) {
    const token = cookie('XSRF-TOKEN');
    if (token && request.method !== 'GET') request.headers.set('X-XSRF-TOKEN', token);
    return request;
  },
};

export const api = createClient<paths>({ baseUrl: '/' });
api.use(csrf);

type Answer<T> = { data?: T; error?: unknown; response: Response };

function problem(status: number, body: unknown): Problem {
  const p = (typeof body === 'object' && body !== null ? body : {}) as Record<string, unknown>;
  const text = (key: string, otherwise: string) => (typeof p[key] === 'string' ? (p[key] as string) : otherwise);
  return new Problem(
    status,
    text('detail', 'The server refused.'),
    typeof p.where === 'string' ? p.where : null,
    text('remedy', 'Try again.'),
    typeof p.kind === 'string' ? p.kind : null,
    p.current ?? null,
  );
}

/** The answer of a call, or a Problem thrown. */
export async function ask<T>(call: Promise<Answer<T>>): Promise<T> {
  let answer: Answer<T>;
  try {
    answer = await call;
  } catch {
    throw new Problem(0, 'The server does not answer.', null, 'Check the connection; what you entered is kept here.');
  }
  if (!answer.response.ok) throw problem(answer.response.status, answer.error);
  return answer.data as T;
}

/** Sends a form with a file, which the typed client has no shape for. */
export async function sendForm<T>(path: string, fields: Record<string, string | File>): Promise<T> {
  const body = new FormData();
  for (const [name, value] of Object.entries(fields)) body.append(name, value);
  let response: Response;
  try {
    response = await fetch(path, { method: 'POST', body, headers: { 'X-XSRF-TOKEN': cookie('XSRF-TOKEN') ?? '' } });
  } catch {
    throw new Problem(0, 'The server does not answer.', null, 'Check the connection; the file is still here.');
  }
  const answer: unknown = await response.json().catch(() => null);
  if (!response.ok) throw problem(response.status, answer);
  return answer as T;
}

/** Fetches a file that the server makes. */
export async function fetchFile(path: string): Promise<Blob> {
  let response: Response;
  try {
    response = await fetch(path);
  } catch {
    throw new Problem(0, 'The server does not answer.', null, 'Check the connection and try again.');
  }
  if (!response.ok) throw problem(response.status, await response.json().catch(() => null));
  return response.blob();
}

/** Sends a file as it is, however large, telling how much of it is gone. */
export function sendFile<T>(path: string, file: Blob, told: (share: number) => void): Promise<T> {
  return new Promise((done, failed) => {
    const request = new XMLHttpRequest();
    request.open('POST', path);
    request.setRequestHeader('X-XSRF-TOKEN', cookie('XSRF-TOKEN') ?? '');
    request.setRequestHeader('Content-Type', 'application/octet-stream');
    request.upload.onprogress = (e) => told(e.lengthComputable ? e.loaded / e.total : 0);
    request.onerror = () =>
      failed(new Problem(0, 'The server does not answer.', null, 'Check the connection; bring the file again.'));
    request.onload = () => {
      let body: unknown = null;
      try {
        body = JSON.parse(request.responseText);
      } catch {
        // An answer that is no JSON says nothing more than its status.
      }
      if (request.status >= 200 && request.status < 300) done(body as T);
      else failed(problem(request.status, body));
    };
    request.send(file);
  });
}

/** Sends a picture to the place that its id names. */
export async function sendPhoto(path: string, file: Blob): Promise<void> {
  const body = new FormData();
  body.append('file', file, 'picture');
  let response: Response;
  try {
    response = await fetch(path, { method: 'PUT', body, headers: { 'X-XSRF-TOKEN': cookie('XSRF-TOKEN') ?? '' } });
  } catch {
    throw new Problem(0, 'The server does not answer.', null, 'Check the connection; the picture is kept here.');
  }
  if (!response.ok) throw problem(response.status, await response.json().catch(() => null));
}

export function asProblem(e: unknown): Problem {
  return e instanceof Problem ? e : new Problem(0, String(e), null, 'Reload the page and try again.');
}
