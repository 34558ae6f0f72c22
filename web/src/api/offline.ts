/** Keeps answers of the server in the browser with the page, so that they open again without a connection. */
export async function keepOffline(answers: string[]): Promise<void> {
  if (!('serviceWorker' in navigator)) return;
  try {
    await navigator.serviceWorker.register('/sw.js');
    const ready = await navigator.serviceWorker.ready;
    const loaded = performance
      .getEntriesByType('resource')
      .map((e) => e.name)
      .filter((name) => name.startsWith(location.origin));
    const channel = new MessageChannel();
    channel.port1.onmessage = () => Object.assign(window, { marvekKept: true });
    const always = ['/', '/api/session', ...answers].map((path) => location.origin + path);
    ready.active?.postMessage({ keep: [...new Set([...always, ...loaded])] }, [channel.port2]);
  } catch {
    // Without it the page still works while it stays open.
  }
}

/** Keeps what a track walk needs. */
export const keepForTheWalk = (layout: string): Promise<void> =>
  keepOffline([`/api/layouts/${layout}`, `/api/layouts/${layout}/road?step=2`]);

/** Forgets what was kept, when the person signs out. */
export async function forgetTheWalk(): Promise<void> {
  if ('caches' in window) await caches.delete('marvek-walk');
}
