import type { LineWay } from '../../contract/instruments/plain-instrument.ts';
import { Link } from '../link.ts';
import type { Adapter } from './adapter.ts';
import { openLines, type LineSource } from './line-source.ts';

/** So many lines that hold no reading are told of, and no more: an instrument may chatter. */
const mostTold = 3;

/** An instrument to be brought in: its adapter, its name on the bench link, and how its lines come. */
export interface AdaptedPlace {
  adapter: Adapter;
  device: string;
  way: LineWay;
}

/**
 * An instrument behind its adapter: takes its lines, and speaks the bench link
 * for it, so that all that holds there (checks, gaps, coming back, sending
 * again what was not safe) holds for it too. Its lines are taken while the
 * recorder is away as well.
 */
export class AdaptedInstrument {
  /** Why nothing comes, as a sentence. */
  problem: string | null = null;
  private readonly source: LineSource;
  private link: Link | undefined;
  private take: (lines: readonly string[]) => void = () => undefined;

  constructor(
    private readonly place: AdaptedPlace,
    private readonly benchLinkPort: number,
    private readonly changed: () => void = () => undefined,
  ) {
    const { way, adapter } = place;
    this.source = openLines(way, adapter.greeting ?? '', {
      connected: (there) => {
        if (!there) return this.link?.close();
        this.say(null);
        return this.speak();
      },
      lines: (lines) => this.take(lines),
      problem: (sentence) => this.say(sentence),
    });
  }

  close(): void {
    this.source.close();
    this.link?.close();
  }

  private say(problem: string | null): void {
    if (this.problem === problem) return;
    this.problem = problem;
    this.changed();
  }

  /** Somebody is there: another life of the instrument, whose numbers begin anew. */
  private speak(): void {
    const { adapter, device } = this.place;
    // What Suvok says back has nobody to go to.
    const link = new Link(
      '127.0.0.1',
      this.benchLinkPort,
      { ...adapter.hello, type: 'hello', device },
      () => undefined,
    );
    this.link = link;
    const read = adapter.reader();
    let told = 0;
    this.take = (lines) => {
      lines.forEach((line, at) => {
        const reading = read(line, { of: lines.length, at });
        if (reading) link.frame(reading.time, reading.values);
        else if (!line.startsWith('#') && told < mostTold) {
          const text = `a line was not understood by the adapter ${adapter.name}: ${line.slice(0, 60)}`;
          if (link.send({ type: 'event', text })) told++;
        }
      });
    };
  }
}
