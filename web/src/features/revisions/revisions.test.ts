// @vitest-environment jsdom
import { fireEvent, screen, waitFor, within } from '@testing-library/svelte';
import { beforeEach, describe, expect, it } from 'vitest';
import type { RevisionSummary } from '../../api/api';
import { server } from '../../testing/server';
import { hosted, squeezed } from '../../testing/shown';
import { replay, told, weekend } from '../../testing/weekend';
import Revisions from './Revisions.svelte';

const params = { id: weekend.id };
const revisions = () => told<RevisionSummary[]>(`/api/references/${weekend.id}/revisions`);

describe('the revisions', () => {
  beforeEach(replay);

  it('shows each with its reason and what it promised, and draws the corner that differs most', async () => {
    hosted(Revisions, { params });
    for (const r of revisions()) await screen.findAllByText(new RegExp(r.reason.slice(0, 30)));
    expect(squeezed(document.body)).toMatch(/promised −0\.11 s/);
    await waitFor(() => expect(document.querySelector('[data-flag]')).toBeTruthy());
    const asked = await waitFor(() => {
      const found = server.sent.find((s) => s.path.endsWith('/answer'));
      expect(found).toBeTruthy();
      return found;
    });
    const { after } = told<{ after: { corners: { corner: string }[] } }>(`/api/references/${weekend.id}/comparison`);
    expect(after.corners.map((c) => c.corner)).toContain((asked?.body as { corner: string }).corner);
  });

  it('starts from an older one by the version that is on the screen', async () => {
    server.on('POST', /revisions\/\d+\/start$/, () => 409);
    hosted(Revisions, { params });
    const oldest = revisions().reduce((a, b) => (a.number < b.number ? a : b));
    const reason = (await screen.findAllByText(new RegExp(oldest.reason.slice(0, 30))))[0] as HTMLElement;
    const row = reason.closest('li') as HTMLElement;
    await fireEvent.click(within(row).getByRole('button', { name: /start from/i }));
    await waitFor(() => expect(server.last('POST')?.path).toMatch(new RegExp(`revisions/${oldest.number}/start$`)));
    const reference = told<{ working: { version: number } }>(`/api/references/${weekend.id}`);
    expect(server.last('POST')?.body).toEqual({ version: reference.working.version });
    expect(await screen.findByText('Trouble 409')).toBeTruthy();
  });
});
