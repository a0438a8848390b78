import type { LinesTold, LinesWanted } from '../../contract/instruments/lines-link.ts';
import type { PlainInstrument, TrialRequest, TrialState } from '../../contract/instruments/plain-instrument.ts';
import { AdaptedInstrument } from './adapted-instrument.ts';
import { openLines, type LineSource } from './line-source.ts';
import { plainAdapter } from './plain-adapter.ts';

/** So many lines of a trial are shown. */
const shownLines = 12;
/** What is heard in a trial is told no more often than this, ms. */
const tellMs = 250;

/** Instruments that send lines of text: those that are settled, and the one that somebody listens to before that. */
export class PlainInstruments {
  private readonly running = new Map<
    string,
    { instrument: PlainInstrument; port: number; adapted: AdaptedInstrument }
  >();
  private heard: { source: LineSource; request: TrialRequest; state: TrialState; sinceMs: number } | undefined;
  private telling: NodeJS.Timeout | undefined;

  constructor(private readonly changed: () => void) {}

  /** Takes what is wanted and nothing else; an instrument that was changed is taken up anew. */
  follow({ benchLinkPort: port, instruments, listening }: LinesWanted): void {
    if (!same(listening, this.heard?.request ?? null)) this.endTrial();
    // What is being listened to by hand cannot be taken twice; it goes on after that.
    const free = instruments.filter(({ way }) => !same(way, listening?.way));
    for (const [device, running] of this.running) {
      if (running.port === port && free.some((one) => same(one, running.instrument))) continue;
      running.adapted.close();
      this.running.delete(device);
    }
    for (const instrument of free) {
      const { device, way } = instrument;
      if (this.running.has(device)) continue;
      const adapted = new AdaptedInstrument({ adapter: plainAdapter(instrument), device, way }, port, this.changed);
      this.running.set(device, { instrument, port, adapted });
    }
    if (listening && !this.heard) this.listen(listening);
    this.changed();
  }

  /** How everything stands. */
  told(): LinesTold {
    const problems = [...this.running].flatMap(([device, { adapted }]) =>
      adapted.problem === null ? [] : [[device, adapted.problem]],
    );
    return { problems: Object.fromEntries(problems) as LinesTold['problems'], trial: this.heard?.state ?? null };
  }

  close(): void {
    clearTimeout(this.telling);
    this.endTrial();
    for (const { adapted } of this.running.values()) adapted.close();
    this.running.clear();
  }

  private listen(request: TrialRequest): void {
    const { way, greeting } = request;
    const state: TrialState = { way, connected: false, problem: null, lines: [], count: 0, rateHz: null };
    const source = openLines(way, greeting, {
      connected: (there) => this.tell(state, { connected: there, ...(there ? { problem: null } : {}) }),
      problem: (problem) => this.tell(state, { problem }),
      lines: (lines) => {
        const { heard } = this;
        if (heard?.state !== state) return;
        heard.sinceMs ||= performance.now();
        const seconds = (performance.now() - heard.sinceMs) / 1000;
        const count = state.count + lines.length;
        this.tell(state, {
          count,
          lines: [...state.lines, ...lines.map((line) => line.slice(0, 400))].slice(-shownLines),
          rateHz: seconds > 1 ? Math.round((10 * count) / seconds) / 10 : null,
        });
      },
    });
    this.heard = { source, request, state, sinceMs: 0 };
  }

  private tell(state: TrialState, change: Partial<TrialState>): void {
    if (this.heard?.state !== state) return;
    Object.assign(state, change);
    this.telling ??= setTimeout(() => {
      this.telling = undefined;
      this.changed();
    }, tellMs).unref();
  }

  private endTrial(): void {
    this.heard?.source.close();
    this.heard = undefined;
  }
}

const same = (one: unknown, other: unknown) => JSON.stringify(one) === JSON.stringify(other);
