import { EventEmitter } from 'node:events';
import { connect, type Socket } from 'node:net';
import type { BaysState } from '../contract/bays/live.ts';
import { recorderMessage, type BayAsk } from '../contract/bays/recorder-link.ts';
import { usualPlan } from '../contract/instruments/recording.ts';
import { Refusal } from '../core/refusal.ts';
import { BlockReader, wordsBlock } from '../recorder/local-link/blocks.ts';

/** After a loss the recorder is sought again this often, ms. */
const retryMs = 200;
/** The recorder has this long to answer, ms: it may have to ask the database. */
const answerWithinMs = 25_000;

interface RecorderEvents {
  changed: [];
  /** Some of one bay and width, as they were gathered. */
  rows: [bay: number, readonly Float64Array[]];
  /** Of this bay. */
  columns: [bay: number];
}

/** The recorder does not answer now. */
export class RecorderAway extends Refusal {
  constructor() {
    super(
      'The recorder does not answer; it is being started again. What it had recorded is kept. Try again in a moment.',
    );
  }
}

interface Waiting {
  settle: (state: BaysState) => void;
  reject: (error: Error) => void;
  patience: NodeJS.Timeout;
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

  /** @param place of the recorder's local socket */
  constructor(private readonly place: string) {
    super();
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

  state(): BaysState {
    if (this.said && this.socket) return this.said;
    const { message } = new RecorderAway();
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
    };
  }

  /**
   * Asks something of the bays.
   * @returns their state afterwards
   * @throws Refusal with the recorder's sentence, RecorderAway while it does not answer
   */
  ask(of: BayAsk): Promise<BaysState> {
    const { socket } = this;
    if (!socket) return Promise.reject(new RecorderAway());
    const id = ++this.asked;
    return new Promise<BaysState>((settle, reject) => {
      const patience = setTimeout(() => {
        this.waiting.delete(id);
        reject(new RecorderAway());
      }, answerWithinMs);
      this.waiting.set(id, { settle, reject, patience });
      socket.write(wordsBlock({ id, of }));
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
    clearTimeout(this.again);
    this.socket?.destroy();
  }

  private seek(): void {
    const socket = connect(this.place);
    const reader = new BlockReader(
      (words) => this.take(words),
      (bay, rows) => this.emit('rows', bay, rows),
    );
    socket.on('connect', () => (this.socket = socket));
    socket.on('data', (bytes) => {
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
