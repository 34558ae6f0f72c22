import { forgetTheWalk } from './offline';
import { api, ask, type Person, type Preferences } from './api';

/** Who is signed in, and what they chose to read. */
class Session {
  person = $state<Person | null>(null);
  demo = $state(false);
  open = $state(true);
  known = $state(false);

  async load() {
    this.take(await ask(api.GET('/api/session')));
    this.known = true;
  }

  take(view: { person?: Person; demo: boolean; open: boolean }) {
    this.person = view.person ?? null;
    this.demo = view.demo;
    this.open = view.open;
    document.documentElement.dataset.theme = this.person?.theme === 'DUSK' ? 'dusk' : 'paper';
  }

  /** Changes what is named, and leaves the rest as it was chosen. */
  async prefer(change: Partial<Preferences>) {
    if (!this.person) return;
    const { speed, length, theme, corners } = this.person;
    this.take(await ask(api.PUT('/api/session/preferences', { body: { speed, length, theme, corners, ...change } })));
  }

  async signOut() {
    await ask(api.DELETE('/api/session'));
    await forgetTheWalk();
    this.person = null;
  }
}

export const session = new Session();
