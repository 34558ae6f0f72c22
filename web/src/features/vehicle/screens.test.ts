// @vitest-environment jsdom
import { fireEvent, screen, waitFor } from '@testing-library/svelte';
import { beforeEach, describe, expect, it } from 'vitest';
import type { VehicleClass, VehicleView } from '../../api/api';
import { server } from '../../testing/server';
import { hosted, squeezed } from '../../testing/shown';
import { replay, told, weekend } from '../../testing/weekend';
import Garage from './Garage.svelte';
import Sheets from './Sheets.svelte';
import VehicleEditor from './VehicleEditor.svelte';

const params = { id: weekend.vehicle };
const vehicle = () => told<VehicleView>(`/api/vehicles/${weekend.vehicle}`);

describe('the garage', () => {
  beforeEach(replay);

  it('copies a class as one’s own', async () => {
    const classes = told<VehicleClass[]>('/api/vehicle-classes');
    server.on('POST', /^\/api\/vehicles$/, () => ({ ...vehicle(), id: 'new' }));
    hosted(Garage, {});
    const buttons = await screen.findAllByRole('button', { name: 'Copy as mine' });
    expect(buttons).toHaveLength(classes.length);
    await fireEvent.click(buttons[1] as HTMLElement);
    await waitFor(() =>
      expect(server.last('POST')?.body).toMatchObject({ basedOn: classes[1]?.id, numbers: classes[1]?.vehicle }),
    );
  });
});

describe('the vehicle', () => {
  beforeEach(replay);

  it('draws what the numbers mean, asks anew as one changes, and can be undone', async () => {
    hosted(VehicleEditor, { params });
    const mass = (await screen.findByLabelText(/Mass with driver and fuel/)) as HTMLInputElement;
    expect(Number(mass.value)).toBe(vehicle().numbers.mass);
    await waitFor(() => expect(squeezed(document.body)).toContain('287 km/h'));
    const asked = server.sent.length;
    await fireEvent.input(mass, { target: { value: '1400' } });
    await fireEvent.change(mass, { target: { value: '1400' } });
    await waitFor(() => expect((server.last('POST')?.body as { mass: number } | undefined)?.mass).toBe(1400));
    expect(server.sent.length).toBeGreaterThan(asked);
    await fireEvent.click(screen.getByRole('button', { name: 'Undo' }));
    await waitFor(() => expect(Number(mass.value)).toBe(vehicle().numbers.mass));
  });

  it('keeps nothing that the server does not take, and says why', async () => {
    server.on('PUT', /^\/api\/vehicles\//, () => 422);
    hosted(VehicleEditor, { params });
    const name = (await screen.findByLabelText('Name')) as HTMLInputElement;
    await fireEvent.input(name, { target: { value: 'Another' } });
    await fireEvent.change(name, { target: { value: 'Another' } });
    await fireEvent.click(await screen.findByRole('button', { name: 'Save' }));
    expect(await screen.findByText('Trouble 422')).toBeTruthy();
    expect(name.value).toBe('Another');
  });
});

describe('sheets of a vehicle', () => {
  beforeEach(() => {
    replay();
    server.on('POST', /sheet-effect$/, () => ({ lapTime: 90, base: 90.4, figures: null, problems: [], corners: [] }));
  });

  it('shows the settings of the sheet that is on', async () => {
    const { sheets } = told<{ sheets: { sheet: { name: string; settings: { reason: string }[] } }[] }>(
      `/api/vehicles/${weekend.vehicle}/sheets`,
    );
    hosted(Sheets, { params });
    for (const { sheet } of sheets)
      expect((await screen.findAllByText(new RegExp(sheet.name))).length).toBeGreaterThan(0);
    const reasons = sheets[0]?.sheet.settings.map((s) => s.reason).filter(Boolean) ?? [];
    expect(reasons.length).toBeGreaterThan(3);
    const written = [...document.querySelectorAll('input')].map((i) => i.value);
    expect(written).toEqual(expect.arrayContaining(reasons));
  });
});
