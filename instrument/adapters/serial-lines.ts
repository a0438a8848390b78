import type { LineWay } from '../../contract/instruments/plain-instrument.ts';
import type { Attempt, Opened } from './attempt.ts';

/** A serial port as `serialport` gives one. */
interface Port {
  on(event: 'open' | 'close', listener: () => void): unknown;
  on(event: 'data', listener: (bytes: Buffer) => void): unknown;
  on(event: 'error', listener: (error: Error) => void): unknown;
  write(text: string): unknown;
  close(done?: () => void): void;
  readonly isOpen: boolean;
}

/** Opens a port of this machine. Loaded when one is wanted: most shops have none. */
type OpenPort = (path: string, baudRate: number) => Promise<Port>;
const ofThisMachine: OpenPort = async (path, baudRate) => {
  const { SerialPort } = await import('serialport');
  return new SerialPort({ path, baudRate, autoOpen: true });
};

/** Lines over a serial port: eight bits, no parity, one stop bit. @param open another way to a port, for tests */
export function openSerial(
  { path, baud }: Extract<LineWay, { by: 'serial' }>,
  greeting: string,
  attempt: Attempt,
  open: OpenPort = ofThisMachine,
): Opened {
  let port: Port | undefined;
  let closed = false;
  const failed = (error: Error) => attempt.ended(`${path}: ${error.message.replace(/^Error: /, '')}.`);
  open(path, baud).then((opened) => {
    port = opened;
    if (closed) return opened.close();
    opened.on('open', () => {
      if (greeting) opened.write(`${greeting}\r\n`);
      attempt.opened();
    });
    opened.on('data', (bytes) => attempt.text(bytes.toString('utf8')));
    opened.on('error', failed);
    opened.on('close', () => attempt.ended());
  }, failed);
  return {
    close() {
      closed = true;
      if (port?.isOpen) port.close();
      else attempt.ended();
    },
  };
}
