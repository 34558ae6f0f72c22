// @vitest-environment jsdom
import { fireEvent, screen, waitFor } from '@testing-library/svelte';
import { beforeEach, describe, expect, it } from 'vitest';
import { session } from '../../api/session.svelte';
import { server } from '../../testing/server';
import { hosted, squeezed } from '../../testing/shown';
import { replay, told } from '../../testing/weekend';
import Account from './Account.svelte';
import SignIn from './SignIn.svelte';

const person = () => told<{ person: Record<string, unknown> }>('/api/session');

describe('signing in', () => {
  beforeEach(() => {
    location.hash = '';
    session.take({ demo: true, open: true } as never);
  });

  it('enters the demo by one press', async () => {
    server.on('POST', /session\/demo$/, () => person());
    hosted(SignIn, {});
    await fireEvent.click(screen.getByRole('button', { name: 'Demo driver' }));
    await waitFor(() => expect(session.person?.name).toBe(person().person['name']));
    expect(server.last('POST')?.body).toEqual({ person: 'DRIVER' });
  });

  it('keeps what was typed where it is refused, and says why', async () => {
    server.on('POST', /^\/api\/session$/, () => 401);
    hosted(SignIn, {});
    const email = screen.getByLabelText(/mail/i) as HTMLInputElement;
    await fireEvent.input(email, { target: { value: 'someone@example.org' } });
    await fireEvent.input(screen.getByLabelText(/Password/), { target: { value: 'a long enough secret' } });
    await fireEvent.submit(email.closest('form') as HTMLFormElement);
    expect(await screen.findByText('Trouble 401')).toBeTruthy();
    expect(email.value).toBe('someone@example.org');
    expect(session.person).toBeFalsy();
  });
});

describe('the account', () => {
  beforeEach(async () => {
    replay();
    await session.load();
  });

  it('says how much is kept, and keeps units as they are chosen', async () => {
    server.on('PUT', /session\/preferences$/, (sent) => {
      const at = person();
      return { ...at, person: { ...at.person, ...(sent.body as object) } };
    });
    hosted(Account, {});
    const { bytes } = told<{ bytes: number }>('/api/account/used');
    await waitFor(() =>
      expect(squeezed(document.body)).toContain(`Space${(bytes / 1024 / 1024).toFixed(1)} MB of 5.0 GB`),
    );
    await fireEvent.change(screen.getByDisplayValue('km/h'), { target: { value: 'MPH' } });
    await waitFor(() => expect(server.last('PUT')?.body).toMatchObject({ speed: 'MPH' }));
    await waitFor(() => expect(session.person?.speed).toBe('MPH'));
  });

  it('deletes nothing without the password', async () => {
    server.on('POST', /account\/leave$/, () => 403);
    hosted(Account, {});
    const leave = await screen.findByRole('button', { name: 'Delete my account' });
    await fireEvent.submit(leave.closest('form') as HTMLFormElement);
    expect(await screen.findByText('Trouble 403')).toBeTruthy();
    expect(session.person).toBeTruthy();
  });
});
