/** Keeps what a track walk needs in the browser, so that it opens again without a connection. */
export async function keepForTheWalk(layout: string): Promise<void> {
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
    ready.active?.postMessage(
      {
        keep: [
          ...new Set([
            `${location.origin}/`,
            `${location.origin}/api/session`,
            `${location.origin}/api/layouts/${layout}`,
            `${location.origin}/api/layouts/${layout}/road?step=2`,
            ...loaded,
          ]),
        ],
      },
      [channel.port2],
    );
  } catch {
    // Without it a walk still works while its page stays open.
  }
}

/** Forgets what was kept, when the person signs out. */
export async function forgetTheWalk(): Promise<void> {
  if ('caches' in window) await caches.delete('marvek-walk');
}
