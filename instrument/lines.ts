import { connect, type Socket } from 'node:net';
import { linesWanted, type LinesWanted } from '../contract/instruments/lines-link.ts';
import { LineReader } from '../contract/values/line-reader.ts';
import { jsonIn } from '../contract/values/text.ts';
import { AdaptedInstrument, type AdaptedPlace } from './adapters/adapted-instrument.ts';
import { PlainInstruments } from './adapters/plain-instruments.ts';

/** After a loss the recorder is sought again this often, ms. */
const retryMs = 200;
/** No list of instruments is longer, characters. */
const longestWords = 4 * 2 ** 20;

/**
 * Takes the lines of instruments that do not speak the bench link, beside the
 * recorder and whether it is there or not: what came while it was away is sent
 * when it is back.
 */
export class Lines {
  private readonly plain = new PlainInstruments(() => this.tell());
  private adapted: AdaptedInstrument[] = [];
  private socket: Socket | undefined;
  private again: NodeJS.Timeout | undefined;
  private closed = false;

  /**
   * @param place of the recorder's local socket for it
   * @param places with adapters of their own
   */
  constructor(
    private readonly place: string,
    private readonly places: readonly AdaptedPlace[] = [],
  ) {
    this.seek();
  }

  close(): void {
    this.closed = true;
    clearTimeout(this.again);
    this.socket?.destroy();
    this.plain.close();
    for (const instrument of this.adapted) instrument.close();
  }

  private seek(): void {
    const socket = connect(this.place);
    // What is no list of instruments comes from a recorder of another version; the next start mends it.
    const reader = new LineReader(
      longestWords,
      (line) => this.heed(line) || socket.destroy(),
      () => socket.destroy(),
    );
    socket.setEncoding('utf8');
    socket.on('connect', () => (this.socket = socket));
    socket.on('data', (text: string) => reader.push(text));
    socket.on('error', () => undefined);
    socket.on('close', () => {
      if (this.socket === socket) this.socket = undefined;
      if (!this.closed) this.again = setTimeout(() => this.seek(), retryMs);
    });
  }

  private heed(line: string): boolean {
    const wanted = linesWanted.safeParse(jsonIn(line));
    if (wanted.success) this.follow(wanted.data);
    return wanted.success;
  }

  private follow(wanted: LinesWanted): void {
    if (this.adapted.length === 0)
      this.adapted = this.places.map((place) => new AdaptedInstrument(place, wanted.benchLinkPort));
    this.plain.follow(wanted);
  }

  private tell(): void {
    this.socket?.write(JSON.stringify(this.plain.told()) + '\n');
  }
}
