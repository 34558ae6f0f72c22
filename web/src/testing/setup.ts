import { configure } from '@testing-library/svelte';
import { afterEach, vi } from 'vitest';
import { server } from './server';

// The client takes hold of fetch when it is made; this stands in its place before that.
const RealRequest = globalThis.Request;
globalThis.Request = class extends RealRequest {
  constructor(input: string | Request | URL, init?: RequestInit) {
    super(typeof input === 'string' ? new URL(input, 'http://localhost/') : input, init);
  }
};
/** A form as its fields, files by their names: what a page makes of one nobody else can read. */
const fields = (init: RequestInit | undefined) =>
  init?.body instanceof FormData
    ? {
        ...init,
        body: JSON.stringify(Object.fromEntries([...init.body].map(([k, v]) => [k, v instanceof File ? v.name : v]))),
      }
    : init;
globalThis.fetch = (input, init) =>
  server.take(input instanceof RealRequest ? input : new Request(input as string, fields(init)));

// Drawings ask how wide they are, dialogs open: neither exists in a page without a screen.
globalThis.ResizeObserver ??= class {
  observe = () => undefined;
  unobserve = () => undefined;
  disconnect = () => undefined;
};
if (typeof HTMLElement !== 'undefined') {
  Object.defineProperty(HTMLElement.prototype, 'clientWidth', { configurable: true, get: () => 900 });
}
if (typeof HTMLDialogElement !== 'undefined') {
  HTMLDialogElement.prototype.showModal ??= function (this: HTMLDialogElement) {
    this.open = true;
  };
  HTMLDialogElement.prototype.close ??= function (this: HTMLDialogElement) {
    this.open = false;
    this.dispatchEvent(new Event('close'));
  };
}

if (typeof window !== 'undefined') {
  window.matchMedia ??= ((media: string) => ({
    media,
    matches: false,
    addEventListener: () => undefined,
    removeEventListener: () => undefined,
  })) as unknown as typeof window.matchMedia;
}

// A busy machine takes its time; what is waited for comes in parts of a second on one that is not.
configure({ asyncUtilTimeout: 10_000 });

afterEach(() => {
  server.reset();
  vi.useRealTimers();
});
