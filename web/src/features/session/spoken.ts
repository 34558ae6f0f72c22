import { asProblem, Problem, sendForm } from '../../api/api';
import { browserShelf, type Shelf } from '../../api/shelf';
import { tell } from '../../words/tell';

/** A spoken note as it waits on this device until the server has it; its id is that of its line. */
export interface Sound {
  id: string;
  sound: Blob;
}

/** Seconds that are spoken at most. */
export const LONGEST = 60;

export const browserSounds = (): Shelf<Sound> => browserShelf<Sound>('marvek-spoken', 'sounds');

/** Why one cannot speak here; nothing where one can. */
export function silent(): string {
  if (!window.isSecureContext) return tell('spoken.speaking_needs_https_here_write');
  if (!navigator.mediaDevices || !('MediaRecorder' in window)) return tell('spoken.this_browser_does_not_record');
  return '';
}

/** A recording under way. */
export interface Recording {
  /** Ends it; what was said, and for how many seconds. */
  stop(): Promise<{ sound: Blob; seconds: number }>;
}

/** Begins to record, after the driver has let it. */
export async function record(onfull: () => void): Promise<Recording> {
  let stream: MediaStream;
  try {
    stream = await navigator.mediaDevices.getUserMedia({ audio: true });
  } catch {
    throw new Problem(0, tell('spoken.the_microphone_was_not_let'), null, tell('spoken.let_this_page_use_it'));
  }
  const recorder = new MediaRecorder(stream, { audioBitsPerSecond: 48_000 });
  const pieces: Blob[] = [];
  recorder.ondataavailable = (e) => {
    if (e.data.size) pieces.push(e.data);
  };
  const began = performance.now();
  recorder.start();
  const full = setTimeout(onfull, LONGEST * 1000);
  return {
    stop: () =>
      new Promise((done) => {
        clearTimeout(full);
        const seconds = Math.max(0.1, Math.min(LONGEST, (performance.now() - began) / 1000));
        recorder.onstop = () => {
          for (const t of stream.getTracks()) t.stop();
          done({ sound: new Blob(pieces, { type: recorder.mimeType }), seconds });
        };
        recorder.stop();
      }),
  };
}

/** Sends what waits, one after the other; what is refused for what it is waits no more, and is said. */
export async function sendSounds(shelf: Shelf<Sound>, session: string): Promise<Problem | null> {
  let refused: Problem | null = null;
  for (const s of await shelf.read(session)) {
    try {
      await sendForm(`/api/sessions/${session}/log/${s.id}/sound`, { file: new File([s.sound], 'note') });
      await shelf.take(session, [s]);
    } catch (e) {
      const p = asProblem(e);
      if (p.status === 0 || p.status >= 500) return refused;
      refused = p;
      await shelf.take(session, [s]);
    }
  }
  return refused;
}
