// @vitest-environment jsdom
import { fireEvent, screen, waitFor } from '@testing-library/svelte';
import { describe, expect, it, vi } from 'vitest';
import { server } from '../../testing/server';
import { hosted } from '../../testing/shown';
import Coaches from './Coaches.svelte';

describe('who sees what was felt', () => {
  it('is nobody until let in, and nobody again at once', async () => {
    let sees = false;
    const all = () => [{ share: 'x1', name: 'Ann', sees }];
    server.on('GET', /coaches$/, all);
    server.on('PUT', /coaches\/x1$/, ({ body }) => {
      sees = (body as { sees: boolean }).sees;
      return all();
    });
    hosted(Coaches, { session: 's1', onproblem: vi.fn() });
    const box = await screen.findByRole<HTMLInputElement>('checkbox', { name: /Ann sees/ });
    expect(box.checked).toBe(false);
    await fireEvent.click(box);
    await waitFor(() => expect(sees).toBe(true));
    await waitFor(() => expect(box.checked).toBe(true));
    await fireEvent.click(box);
    await waitFor(() => expect(sees).toBe(false));
  });

  it('says what to do when it is refused, and shows nothing where there is no coach', async () => {
    server.on('GET', /coaches$/, () => [{ share: 'x1', name: 'Ann', sees: false }]);
    server.on('PUT', /coaches\/x1$/, () => 422);
    const onproblem = vi.fn();
    hosted(Coaches, { session: 's1', onproblem });
    await fireEvent.click(await screen.findByRole('checkbox', { name: /Ann sees/ }));
    await waitFor(() => expect(onproblem).toHaveBeenLastCalledWith(expect.objectContaining({ status: 422 })));
    server.on('GET', /coaches$/, () => []);
  });
});
