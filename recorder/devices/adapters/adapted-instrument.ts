import { connect, type Socket } from 'node:net';
import { plainProtocol, longestLine } from '../../../contract/bench-link.ts';
import { LineReader } from '../line-reader.ts';
import type { AdaptedPlace } from './adapters.ts';

const retryMs = 2000;
/** So many lines that hold no reading are told of, and no more: an instrument may chatter. */
const mostTold = 3;

/**
 * An instrument behind its adapter: connects to it, and speaks the bench link
 * for it, so that all that holds there (checks, gaps, coming back) holds for
 * it too. Connects again whenever either side is lost.
 */
export class AdaptedInstrument {
  private closed = false;
  private instrument: Socket | undefined;
  private link: Socket | undefined;

  constructor(
    private readonly place: AdaptedPlace,
    private readonly benchLinkPort: number,
  ) {
    this.open();
  }

  close(): void {
    this.closed = true;
    this.instrument?.destroy();
    this.link?.destroy();
  }

  private open(): void {
    if (this.closed) return;
    const { adapter, host, port } = this.place;
    const instrument = connect({ host, port });
    this.instrument = instrument;
    instrument.setEncoding('utf8');
    instrument.on('error', () => undefined);
    instrument.once('close', () => {
      this.link?.end();
      this.link = undefined;
      setTimeout(() => this.open(), retryMs).unref();
    });
    instrument.once('connect', () => {
      if (adapter.greeting) instrument.write(adapter.greeting);
      this.speakFor(instrument);
    });
  }

  private speakFor(instrument: Socket): void {
    const { adapter, host, port } = this.place;
    const link = connect({ host: '127.0.0.1', port: this.benchLinkPort });
    this.link = link;
    link.on('error', () => undefined);
    // Without the link nothing is to be read; the instrument is taken up again with it.
    link.once('close', () => instrument.destroy());
    // Suvok's words have nobody to go to.
    link.resume();
    const say = (message: object) => link.writable && link.write(JSON.stringify(message) + '\n');
    say({ type: 'hello', protocol: plainProtocol, device: `${adapter.name}-${host}-${port}`.slice(0, 64), ...adapter.hello }); // prettier-ignore
    const read = adapter.reader();
    let sequence = 0;
    let told = 0;
    const lines = new LineReader(
      longestLine,
      (line) => {
        const reading = read(line);
        if (reading) say({ type: 'frame', sequence: sequence++, ...reading });
        else if (!line.startsWith('#') && told++ < mostTold)
          say({
            type: 'event',
            text: `a line was not understood by the adapter ${adapter.name}: ${line.slice(0, 60)}`,
          });
      },
      () => undefined,
    );
    instrument.on('data', (text: string) => lines.push(text));
  }
}
