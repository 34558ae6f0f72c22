// @vitest-environment jsdom
import { fireEvent, screen, waitFor } from '@testing-library/svelte';
import { beforeEach, describe, expect, it } from 'vitest';
import type { DebriefView, ProposalLine } from '../../api/api';
import { server } from '../../testing/server';
import { hosted, squeezed } from '../../testing/shown';
import { replay, told, weekend } from '../../testing/weekend';
import Debrief from './Debrief.svelte';

const params = { id: weekend.run };
const debrief = () => told<DebriefView>(`/api/runs/${weekend.run}/debrief`);
const proposals = () => told<{ version: number; proposals: ProposalLine[] }>(`/api/runs/${weekend.run}/proposals`);

describe('the debrief', () => {
  beforeEach(replay);

  it('begins with what matters most: the corner, its seconds, the habit and what to do', async () => {
    hosted(Debrief, { params });
    const { debrief: read } = debrief();
    const first = read.corners.find((c) => c.corner === read.focus[0]);
    await waitFor(() => expect(squeezed(document.body)).toContain(`${first?.offer.toFixed(2)} s`));
    const page = squeezed(document.body);
    expect(page).toContain(String(first?.habits[0]?.words));
    expect(page).toContain(String(first?.habits[0]?.cure));
    expect(page).toContain(`${read.laps} laps count`);
  });

  it('takes what is accepted with its reason, from the version that the proposals stand on', async () => {
    server.on('POST', /accept$/, () => 409);
    hosted(Debrief, { params });
    await fireEvent.click(await screen.findByRole('tab', { name: /Proposals/ }));
    const change = proposals().proposals.find((p) => p.change);
    const accept = (await screen.findAllByRole('button', { name: 'Accept' }))[0] as HTMLElement;
    await fireEvent.click(accept);
    const reason = document.querySelector('form textarea, form input:not([type=range])') as HTMLInputElement;
    await fireEvent.input(reason, { target: { value: 'As the laps say' } });
    await fireEvent.submit(reason.closest('form') as HTMLFormElement);
    await waitFor(() => expect(server.last('POST')?.path).toBe(`/api/runs/${weekend.run}/accept`));
    const sent = server.last('POST')?.body as {
      version: number;
      reason: string;
      moves: { corner: string; to: number }[];
    };
    expect(sent.version).toBe(proposals().version);
    expect(sent.reason).toBe('As the laps say');
    expect(sent.moves).toHaveLength(1);
    expect(sent.moves[0]?.corner).toBe(change?.corner);
    expect(sent.moves[0]?.to).toBeCloseTo(change?.to ?? 0, 1);
    expect(await screen.findByText('Trouble 409')).toBeTruthy();
    expect(reason.value, 'nothing that was typed is lost').toBe('As the laps say');
  });

  it('says where the laps fit no day, and judges nothing', async () => {
    const none = debrief();
    server.on('GET', /debrief$/, () => ({
      ...none,
      debrief: { ...none.debrief, focus: [], corners: [] },
    }));
    hosted(Debrief, { params });
    await waitFor(() => expect(squeezed(document.body)).toContain(`${none.debrief.laps} laps count`));
    expect(document.querySelectorAll('[data-spread]')).toHaveLength(0);
  });
});
