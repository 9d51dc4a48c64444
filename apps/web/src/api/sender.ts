import { newId } from './id.ts';

/**
 * Which of this device's pages sends what was tapped: one of them, so that taps of two pages go in the order in which
 * they were made, and what a page left when it was closed is sent by one that is still open. Pages agree by a lock of
 * the browser (Web Locks) and tell each other what they have (BroadcastChannel); where a browser has neither, each page
 * sends its own; an entry counts once whoever sends it.
 */
const LOCK = 'schmelz-sender';
const CHANNEL = 'schmelz-taps';
/** A page that sends and does not answer by then sleeps in the background: one that was tapped takes its place. */
const ANSWERS_WITHIN_MS = 2000;

/** What pages tell each other. */
type Message =
  /** Something lies on the disk that is to be sent. */
  | { kind: 'kept' }
  /** Whoever sends has heard of it. */
  | { kind: 'heard' }
  /** The server has answered for a tap: it counts (null), or why it does not. */
  | { kind: 'answered'; path: string; id: string; why: string | null };

interface Sender {
  /** This page, for as long as it is open. */
  page: string;
  /** Whether this page sends. */
  isMine(): boolean;
  /** A tap was kept on the disk: whoever sends is to know. */
  kept(): void;
  /** Tells the other pages what became of a tap. */
  answered(path: string, id: string, why: string | null): void;
  /** Pages that are open now; null where nobody can know. */
  openPages(): Promise<ReadonlySet<string> | null>;
}

interface Heard {
  /** This page sends from now on, or there is something new to send. */
  look(): void;
  answered(path: string, id: string, why: string | null): void;
}

/**
 * Takes part in who sends, for as long as the page is open.
 * @param heard is called when this page is to look what there is to send, and when another was answered
 */
export function makeSender(heard: Heard): Sender {
  const page = newId();
  const alone: Sender = {
    page,
    isMine: () => true,
    kept: () => undefined,
    answered: () => undefined,
    openPages: async () => null,
  };
  if (typeof navigator === 'undefined' || !navigator.locks || typeof BroadcastChannel === 'undefined') return alone;

  const channel = new BroadcastChannel(CHANNEL);
  const tell = (message: Message) => channel.postMessage(message);
  let mine = false;
  let asking: ReturnType<typeof setTimeout> | undefined;

  const hold = (steal: boolean) => {
    const held = () =>
      new Promise<void>(() => {
        // Held for as long as the page is open.
        mine = true;
        heard.look();
      });
    navigator.locks.request(LOCK, { steal }, held).catch((error: Error) => {
      // Another page took it: this one sleeps, or did. A browser that gives no lock at all leaves each page its own.
      const stolen = error.name === 'AbortError';
      mine = !stolen;
      if (stolen) hold(false);
      else heard.look();
    });
  };
  hold(false);
  // By this others know that the page is open; one that gets no lock is taken for closed, and its taps go all the same.
  navigator.locks.request(`schmelz-page-${page}`, () => new Promise<void>(() => undefined)).catch(() => undefined);

  channel.onmessage = ({ data }: MessageEvent<Message>) => {
    if (data.kind === 'answered') heard.answered(data.path, data.id, data.why);
    if (data.kind === 'heard') clearTimeout(asking);
    if (data.kind === 'kept' && mine) {
      tell({ kind: 'heard' });
      heard.look();
    }
  };
  return {
    page,
    isMine: () => mine,
    kept() {
      if (mine) return;
      tell({ kind: 'kept' });
      clearTimeout(asking);
      asking = setTimeout(() => hold(true), ANSWERS_WITHIN_MS);
    },
    answered: (path, id, why) => tell({ kind: 'answered', path, id, why }),
    async openPages() {
      const { held = [] } = await navigator.locks.query();
      return new Set(held.flatMap(({ name }) => (name?.startsWith('schmelz-page-') ? [name.slice(13)] : [])));
    },
  };
}
