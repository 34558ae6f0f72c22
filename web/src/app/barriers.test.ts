// @vitest-environment jsdom
import 'fake-indexeddb/auto';
import { cleanup, waitFor } from '@testing-library/svelte';
import axe from 'axe-core';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { here } from '../kit/here.svelte';
import { session } from '../api/session.svelte';
import Account from '../features/account/Account.svelte';
import SignIn from '../features/account/SignIn.svelte';
import Debrief from '../features/debrief/Debrief.svelte';
import Paddock from '../features/paddock/Paddock.svelte';
import Card from '../features/reference/Card.svelte';
import Reference from '../features/reference/Reference.svelte';
import Whole from '../features/reference/Whole.svelte';
import Revisions from '../features/revisions/Revisions.svelte';
import Runs from '../features/runs/Runs.svelte';
import Bring from '../features/survey/Bring.svelte';
import Survey from '../features/survey/Survey.svelte';
import SurveyWork from '../features/survey/SurveyWork.svelte';
import Garage from '../features/vehicle/Garage.svelte';
import Sheets from '../features/vehicle/Sheets.svelte';
import VehicleEditor from '../features/vehicle/VehicleEditor.svelte';
import Walk from '../features/walk/Walk.svelte';
import { server } from '../testing/server';
import { hosted } from '../testing/shown';
import { replay, told, weekend } from '../testing/weekend';

// There is no canvas here.
vi.mock('uplot', () => ({
  default: class {
    destroy() {}
    setSize() {}
    setData() {}
    over = document.createElement('div');
    cursor = { left: 0 };
  },
}));

/** Colours and layout are not there without a browser; a part of a page has no landmarks of its own. */
const RULES = Object.fromEntries(
  ['color-contrast', 'region', 'page-has-heading-one', 'landmark-one-main'].map((r) => [r, { enabled: false }]),
);

const id = weekend.id;
const SCREENS: [string, unknown, Record<string, unknown>][] = [
  ['sign-in', SignIn, {}],
  ['account', Account, {}],
  ['paddock', Paddock, {}],
  ['circuits', Survey, {}],
  ['bring a circuit', Bring, {}],
  ['survey', SurveyWork, { id: weekend.layout }],
  ['track walk', Walk, { params: { id: weekend.layout } }],
  ['garage', Garage, {}],
  ['vehicle', VehicleEditor, { params: { id: weekend.vehicle } }],
  ['set-up sheets', Sheets, { params: { id: weekend.vehicle } }],
  ['reference', Reference, { params: { id } }],
  ['whole lap', Whole, { params: { id } }],
  ['card', Card, { params: { id, revision: '2' } }],
  ['runs', Runs, { params: { id } }],
  ['debrief', Debrief, { params: { id } }],
  ['revisions', Revisions, { params: { id } }],
];

describe('barriers for those who do not see the screen, or use no mouse', () => {
  beforeEach(async () => {
    replay();
    here.run = null;
    server.on('GET', /\/trace$|plan-trace$/, () => 404);
    server.on('GET', /\/sun$/, () => ({ path: [], shadows: [], sun: null }));
    server.on('POST', /\/clearances$/, () => []);
    server.on('GET', /layouts\/[^/]*\/road$/, () => told(`/api/layouts/${weekend.layout}/road`));
    await session.load();
  });
  afterEach(cleanup);

  it.each(SCREENS)('are not found by axe on %s', async (_, shown, given) => {
    hosted(shown, given);
    await waitFor(() => expect(document.querySelector('h1, h2, form, main, svg')).toBeTruthy());
    // What is asked for comes and is drawn.
    await new Promise((go) => setTimeout(go, 300));
    const { violations } = await axe.run(document.body, { rules: RULES, resultTypes: ['violations'] });
    const found = violations.flatMap((v) => v.nodes.map((n) => `${v.id}: ${n.html.slice(0, 160)}`));
    expect(found).toEqual([]);
  });
});
