import type { PlainInstrument, TrialState } from '../../../contract/plain-instrument.ts';
import type { z } from 'zod';
import type { trialRequest } from '../../../contract/plain-instrument.ts';
import { AdaptedInstrument } from './adapted-instrument.ts';
import { openLines, type LineSource } from './line-source.ts';
import { plainAdapter } from './plain-adapter.ts';

/** So many lines of a trial are shown. */
const shownLines = 12;
/** A trial that nobody asks for any more ends after this time, ms. */
const trialMs = 60_000;
/** What is heard in a trial is told no more often than this, ms. */
const tellMs = 250;

/** Instruments that send lines of text: those that are settled, and the one that somebody listens to before that. */
export class PlainInstruments {
  private readonly running = new Map<string, { instrument: PlainInstrument; adapted: AdaptedInstrument }>();
  private wanted: readonly PlainInstrument[] = [];
  private benchLinkPort: number | undefined;
  private heard: { source: LineSource; state: TrialState; sinceMs: number; patience: NodeJS.Timeout } | undefined;
  private telling: NodeJS.Timeout | undefined;

  constructor(private readonly changed: () => void) {}

  /** The bench link listens: instruments can be brought in. */
  start(benchLinkPort: number): void {
    this.benchLinkPort = benchLinkPort;
  }

  /** Makes those that run the ones that are wanted; one that was changed is taken up anew. */
  follow(wanted: readonly PlainInstrument[]): void {
    this.wanted = wanted;
    const port = this.benchLinkPort;
    if (port === undefined) return;
    // What is being listened to by hand cannot be taken twice; it goes on after that.
    const free = wanted.filter(({ way }) => !same(way, this.heard?.state.way));
    for (const [device, { instrument, adapted }] of this.running) {
      if (free.some((one) => same(one, instrument))) continue;
      adapted.close();
      this.running.delete(device);
    }
    for (const instrument of free) {
      const { device, way } = instrument;
      if (this.running.has(device)) continue;
      const adapted = new AdaptedInstrument({ adapter: plainAdapter(instrument), device, way }, port, this.changed);
      this.running.set(device, { instrument, adapted });
    }
    this.changed();
  }

  /** Why nothing comes from one, as a sentence. */
  problemOf(device: string): string | null {
    return this.running.get(device)?.adapted.problem ?? null;
  }

  get trial(): TrialState | null {
    return this.heard?.state ?? null;
  }

  /** Listens on a way, in the place of what was listened to before; asked again it goes on. */
  listen({ way, greeting }: z.output<typeof trialRequest>): void {
    if (this.heard && same(this.heard.state.way, way)) {
      this.heard.patience.refresh();
      return;
    }
    this.endTrial();
    const state: TrialState = { way, connected: false, problem: null, lines: [], count: 0, rateHz: null };
    for (const [device, { instrument, adapted }] of this.running)
      if (same(instrument.way, way)) {
        adapted.close();
        this.running.delete(device);
      }
    const source = openLines(way, greeting, {
      connected: (there) => this.tell(state, { connected: there, ...(there ? { problem: null } : {}) }),
      problem: (problem) => this.tell(state, { problem }),
      lines: (lines) => {
        const { heard } = this;
        if (heard?.state !== state) return;
        heard.sinceMs ||= performance.now();
        const seconds = (performance.now() - heard.sinceMs) / 1000;
        state.lines = [...state.lines, ...lines.map((line) => line.slice(0, 400))].slice(-shownLines);
        state.count += lines.length;
        state.rateHz = seconds > 1 ? Math.round((10 * state.count) / seconds) / 10 : null;
        this.tell(state, {});
      },
    });
    this.heard = { source, state, sinceMs: 0, patience: setTimeout(() => this.endTrial(), trialMs).unref() };
    this.changed();
  }

  private tell(state: TrialState, change: Partial<TrialState>): void {
    if (this.heard?.state !== state) return;
    Object.assign(state, change);
    this.telling ??= setTimeout(() => {
      this.telling = undefined;
      this.changed();
    }, tellMs).unref();
  }

  endTrial(): void {
    const { heard } = this;
    if (!heard) return;
    this.heard = undefined;
    clearTimeout(heard.patience);
    heard.source.close();
    this.follow(this.wanted);
  }

  close(): void {
    clearTimeout(this.telling);
    this.wanted = [];
    this.endTrial();
    for (const { adapted } of this.running.values()) adapted.close();
    this.running.clear();
  }
}

const same = (one: unknown, other: unknown) => JSON.stringify(one) === JSON.stringify(other);
