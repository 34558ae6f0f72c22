// @vitest-environment jsdom
import { fireEvent, screen, waitFor, within } from '@testing-library/svelte';
import { beforeEach, describe, expect, it } from 'vitest';
import type { PaddockView } from '../../api/api';
import { server } from '../../testing/server';
import { hosted, squeezed } from '../../testing/shown';
import { replay, told, weekend } from '../../testing/weekend';
import Paddock from './Paddock.svelte';

describe('the paddock', () => {
  const view = () => told<PaddockView>('/api/paddock');
  beforeEach(replay);
  const shown = (over: Partial<PaddockView> = {}) => {
    server.on('GET', /^\/api\/paddock$/, () => ({ ...view(), ...over }));
    hosted(Paddock, {});
  };

  it('shows each reference with its revision, its lap and the way to its revisions', async () => {
    shown();
    for (const r of view().references) {
      const link = await screen.findByRole('link', { name: new RegExp(`${r.circuit}.*${r.vehicle}`) });
      const row = link.closest('li') as HTMLElement;
      expect(link.getAttribute('href')).toBe(`#/reference/${r.id}`);
      const seconds = (r.lapTime % 60).toFixed(2).padStart(5, '0');
      expect(squeezed(row)).toContain(`${Math.floor(r.lapTime / 60)}:${seconds}`);
      expect(within(row).getByRole('link', { name: 'Revisions' }).getAttribute('href')).toBe(`#/revisions/${r.id}`);
    }
  });

  it('says beside the lap that corners cannot be made, and nothing where all can', async () => {
    shown({ references: view().references.map((r, i) => ({ ...r, unmade: i === 0 ? 2 : 0 })) });
    const told = await screen.findByText(/but for 2 corners that cannot be made/);
    expect(squeezed(told.closest('li'))).toContain(view().references[0]?.circuit);
    expect(screen.getAllByText(/cannot be made/)).toHaveLength(1);
  });

  it('leads a newcomer to a circuit first, and to what was opened to him before that', async () => {
    shown({
      step: 'BRING_CIRCUIT',
      reference: undefined,
      references: [],
      layouts: [],
      vehicles: [],
      due: [],
      shared: [],
    });
    expect(await screen.findByRole('heading', { name: 'Bring a circuit' })).toBeTruthy();
    expect(screen.getByText('None yet.')).toBeTruthy();
    expect(screen.queryByRole('button', { name: /draft/i })).toBeNull();
  });

  it('asks for a draft of the chosen circuit and vehicle, and keeps what is wrong on the page', async () => {
    server.on('POST', /^\/api\/references$/, () => 422);
    shown({ step: 'DRAFT' });
    const vehicles = await screen.findByLabelText('Vehicle');
    const other = view().vehicles[1];
    await fireEvent.change(vehicles, { target: { value: other?.id } });
    await fireEvent.submit(vehicles.closest('form') as HTMLFormElement);
    await waitFor(() => expect(server.last('POST')?.body).toEqual({ layoutId: weekend.layout, vehicleId: other?.id }));
    expect(await screen.findByText('Trouble 422')).toBeTruthy();
  });

  it('says what to do where it cannot be read', async () => {
    server.on('GET', /^\/api\/paddock$/, () => 503);
    hosted(Paddock, {});
    expect(await screen.findByText('Try it otherwise.')).toBeTruthy();
  });
});
