import { connect, type Socket } from 'node:net';
import { plainProtocol } from '../../../contract/bench-link.ts';
import type { LineWay } from '../../../contract/plain-instrument.ts';
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
 * for it, so that all that holds there (checks, gaps, coming back) holds for
 * it too. Connects again whenever either side is lost.
 */
export class AdaptedInstrument {
  /** Why nothing comes, as a sentence. */
  problem: string | null = null;
  private readonly source: LineSource;
  private link: Socket | undefined;
  private take: (lines: readonly string[]) => void = () => undefined;

  constructor(
    private readonly place: AdaptedPlace,
    private readonly benchLinkPort: number,
    private readonly changed: () => void = () => undefined,
  ) {
    const { way, adapter } = place;
    this.source = openLines(way, adapter.greeting ?? '', {
      connected: (there) => {
        if (!there) return this.link?.end();
        this.say(null);
        return this.speak();
      },
      lines: (lines) => this.take(lines),
      problem: (sentence) => this.say(sentence),
    });
  }

  close(): void {
    this.source.close();
    this.link?.destroy();
  }

  private say(problem: string | null): void {
    if (this.problem === problem) return;
    this.problem = problem;
    this.changed();
  }

  private speak(): void {
    const { adapter, device } = this.place;
    const link = connect({ host: '127.0.0.1', port: this.benchLinkPort });
    this.link = link;
    link.on('error', () => undefined);
    // Without the link nothing is to be read; the instrument is taken up again with it.
    link.once('close', () => this.link === link && this.source.drop());
    // Suvok's words have nobody to go to.
    link.resume();
    const say = (message: object) => link.writable && link.write(JSON.stringify(message) + '\n');
    say({ type: 'hello', protocol: plainProtocol, device, ...adapter.hello });
    const read = adapter.reader();
    let sequence = 0;
    let told = 0;
    this.take = (lines) => {
      lines.forEach((line, at) => {
        const reading = read(line, { of: lines.length, at });
        if (reading) say({ type: 'frame', sequence: sequence++, ...reading });
        else if (!line.startsWith('#') && told++ < mostTold)
          say({
            type: 'event',
            text: `a line was not understood by the adapter ${adapter.name}: ${line.slice(0, 60)}`,
          });
      });
    };
  }
}
