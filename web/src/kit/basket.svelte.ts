import { api, ask, type Away } from '../api/api';

/** Putting things away, and bringing the last one back. */
class Basket {
  last = $state.raw<{ sort: Away['sort']; id: string; name: string } | null>(null);

  async put(sort: Away['sort'], id: string, name: string) {
    await ask(api.POST('/api/account/basket', { body: { sort, id } }));
    this.last = { sort, id, name };
  }

  /** Says that something was put away by a request of its own. */
  noted(sort: Away['sort'], id: string, name: string) {
    this.last = { sort, id, name };
  }

  async back() {
    const last = this.last;
    if (!last) return;
    await ask(api.POST('/api/account/basket/back', { body: { sort: last.sort, id: last.id } }));
    this.last = null;
  }
}

export const basket = new Basket();
