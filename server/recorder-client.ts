import { EventEmitter } from 'node:events';
import { connect, type Socket } from 'node:net';
import { silentAfterMs, type BaysState } from '../contract/bays/live.ts';
import { recorderMessage, type BayAsk } from '../contract/bays/recorder-link.ts';
import { clockTime } from '../contract/values/clock-time.ts';
import { usualPlan } from '../contract/instruments/recording.ts';
import { Silence } from '../core/readiness/silence.ts';
import { Refusal } from '../core/refusal.ts';
import { BlockReader, wordsBlock } from '../recorder/local-link/blocks.ts';
import { machineMs } from '../recorder/local-link/machine-clock.ts';

/** After a loss the recorder is sought again this often, ms. */
const retryMs = 200;
/** The recorder has this long to answer, ms: it may have to ask the database. */
const answerWithinMs = 25_000;
/** Somebody in gloves has pressed a key: these are answered within a second, or refused, ms. */
const atOnceMs = 800;
const atOnce: ReadonlySet<BayAsk['ask']> = new Set(['arm', 'end', 'hold']);
/** How often it is looked whether the recorder has spoken, ms. */
const listenEveryMs = 250;

interface RecorderEvents {
  changed: [];
  /** Some of one bay and width, as they were gathered. */
  rows: [bay: number, readonly Float64Array[]];
  /** Of this bay. */
  columns: [bay: number];
}

/** The recorder does not answer now. */
export class RecorderAway extends Refusal {
  /** @param sinceMs since when it is connected and says nothing, ms since 1970 */
  constructor(sinceMs?: number) {
    super(
      sinceMs === undefined
        ? 'The recorder does not answer; it is being started again. What it had recorded is kept. Try again in a moment.'
        : `The recorder has said nothing since ${clockTime(sinceMs)}: what it shows is old, and nothing can be begun or ended. What it had recorded is kept. After ten seconds it is started again by itself.`,
    );
  }
}

interface Waiting {
  settle: (state: BaysState) => void;
  reject: (error: Error) => void;
  patience: NodeJS.Timeout;
}

/** What the recorder said last, once it is old: nothing of it counts as heard. */
function unheard(said: BaysState, problem: string, silentSince: number): BaysState {
  const silent = (devices: BaysState['unplaced']) => devices.map((device) => ({ ...device, heard: false }));
  return {
    ...said,
    bays: said.bays.map((bay) => ({
      ...bay,
      devices: silent(bay.devices),
      recorder: { ...bay.recorder, problem },
    })),
    unplaced: silent(said.unplaced),
    silentSince,
  };
}

/**
 * The server's end of the recorder's local socket. What the recorder said last
 * is what pages are shown; while it is away they are told so.
 */
export class RecorderClient extends EventEmitter<RecorderEvents> {
  /** Columns of the rows that come, and of which instrument, by bay. */
  readonly columns = new Map<number, { device: string; columns: string[] }>();
  private said: BaysState | undefined;
  private socket: Socket | undefined;
  private readonly waiting = new Map<number, Waiting>();
  private asked = 0;
  private closed = false;
  private again: NodeJS.Timeout | undefined;
  /** When it was heard last, ms since 1970. */
  private heardMs = 0;
  private readonly silence = new Silence(silentAfterMs, listenEveryMs);
  private readonly listening: NodeJS.Timeout;

  /** @param place of the recorder's local socket */
  constructor(private readonly place: string) {
    super();
    this.listening = setInterval(() => {
      if (this.socket && this.silence.tick(Date.now())) this.emit('changed');
    }, listenEveryMs);
    this.seek();
  }

  /** Settles when the recorder has spoken, or after a moment without it. */
  async ready(withinMs = 5000): Promise<void> {
    if (this.said) return;
    await new Promise<void>((resolve) => {
      const patience = setTimeout(resolve, withinMs);
      this.once('changed', () => {
        clearTimeout(patience);
        resolve();
      });
    });
  }

  /** Since when it says nothing though it is there, ms since 1970. */
  private get silentSince(): number | undefined {
    return this.socket && this.silence.sinceMs;
  }

  state(): BaysState {
    const { silentSince } = this;
    if (this.said && this.socket && silentSince === undefined) return this.said;
    const { message } = new RecorderAway(silentSince);
    if (this.said && silentSince !== undefined) return unheard(this.said, message, silentSince);
    const last = this.said?.bays ?? [
      { bay: 1, name: 'Bay 1', mounted: null, plan: usualPlan, recorder: { lastRunId: null } },
    ];
    return {
      type: 'bays',
      bays: last.map(({ bay, name, mounted, plan, recorder: { lastRunId } }) => ({
        bay,
        name,
        devices: [],
        air: null,
        mounted,
        plan,
        recorder: { state: 'idle', runId: null, label: null, startedS: null, lastRunId, problem: message },
      })),
      unplaced: [],
      plain: this.said?.plain ?? [],
      trial: null,
      pairing: this.said?.pairing ?? { outside: null, until: null, instruments: [] },
      silentSince: null,
    };
  }

  /**
   * Asks something of the bays.
   * @returns their state afterwards
   * @throws Refusal with the recorder's sentence, RecorderAway while it does not answer
   */
  ask(of: BayAsk): Promise<BaysState> {
    const { socket, silentSince } = this;
    if (!socket || silentSince !== undefined) return Promise.reject(new RecorderAway(silentSince));
    const id = ++this.asked;
    const hasty = atOnce.has(of.ask);
    const patienceMs = hasty ? atOnceMs : answerWithinMs;
    const notAfterMs = hasty ? machineMs() + patienceMs : undefined;
    const askedMs = Date.now();
    return new Promise<BaysState>((settle, reject) => {
      const patience = setTimeout(() => {
        this.waiting.delete(id);
        // One that speaks and does not answer this has other reasons than silence.
        reject(new RecorderAway(this.heardMs <= askedMs ? this.heardMs : undefined));
      }, patienceMs);
      this.waiting.set(id, { settle, reject, patience });
      socket.write(wordsBlock({ id, of, notAfterMs }));
    });
  }

  /** Tells the bays of a change that it reads anew when it comes back: nobody waits for a recorder that is away. */
  async tell(of: BayAsk): Promise<void> {
    await this.ask(of).catch((error: Error) => {
      if (!(error instanceof RecorderAway)) throw error;
    });
  }

  close(): void {
    this.closed = true;
    clearInterval(this.listening);
    clearTimeout(this.again);
    this.socket?.destroy();
  }

  private seek(): void {
    const socket = connect(this.place);
    const reader = new BlockReader(
      (words) => this.take(words),
      (bay, rows) => this.emit('rows', bay, rows),
    );
    socket.on('connect', () => {
      this.socket = socket;
      this.silence.heard();
    });
    socket.on('data', (bytes) => {
      this.heardMs = Date.now();
      if (this.silence.heard()) this.emit('changed');
      try {
        reader.push(bytes);
      } catch {
        // A recorder of another version, or no recorder at all: nothing of it is shown.
        socket.destroy();
      }
    });
    socket.on('error', () => undefined);
    socket.on('close', () => {
      const lost = this.socket === socket;
      this.socket = undefined;
      for (const { reject, patience } of this.waiting.values()) {
        clearTimeout(patience);
        reject(new RecorderAway());
      }
      this.waiting.clear();
      if (this.closed) return;
      if (lost) this.emit('changed');
      this.again = setTimeout(() => this.seek(), retryMs);
    });
  }

  private take(words: unknown): void {
    const message = recorderMessage.parse(words);
    switch (message.type) {
      case 'bays':
        this.said = message;
        this.emit('changed');
        return;
      case 'columns':
        this.columns.set(message.bay, { device: message.device, columns: message.columns });
        this.emit('columns', message.bay);
        return;
      case 'answer': {
        this.said = message.state;
        this.emit('changed');
        const waiting = this.waiting.get(message.id);
        if (!waiting) return;
        this.waiting.delete(message.id);
        clearTimeout(waiting.patience);
        if (message.refusal !== undefined) waiting.reject(new Refusal(message.refusal));
        else if (message.failure !== undefined) waiting.reject(new Error(message.failure));
        else waiting.settle(message.state);
      }
    }
  }
}
