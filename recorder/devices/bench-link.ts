import { EventEmitter } from 'node:events';
import { createServer, type Server, type Socket } from 'node:net';
import { createServer as createSecureServer, type TlsOptions } from 'node:tls';
import type { Hello } from '../../contract/instruments/bench-link.ts';
import { plainSettings, type DeviceSettings } from '../../contract/instruments/recording.ts';
import { Refusal } from '../../core/refusal.ts';
import type { Journal } from '../spool/journal.ts';
import { Device } from './device.ts';
import { listening } from '../listening.ts';
import { Peer, type Door } from './peer.ts';

/** So many connections from other machines at once. */
const mostOutside = 64;

interface BenchLinkEvents {
  device: [Device];
  /** A peer that never became a device said something wrong. */
  stranger: [string];
}

/**
 * Listens for instruments on loopback, and over TLS for those on other machines. One that comes back as the same
 * instance goes on where it was; another of its name is refused while it is heard.
 */
export class BenchLink extends EventEmitter<BenchLinkEvents> {
  private readonly server: Server;
  private outside: Server | undefined;
  private readonly peers = new Set<Peer>();
  private readonly devices = new Map<string, Device>();
  /** What the shop has set of instruments, by their names on the link. */
  readonly settings = new Map<string, DeviceSettings>();

  /** @param door for instruments on other machines */
  constructor(
    private readonly journal: Journal,
    private readonly door: Door,
  ) {
    super();
    journal.on('safe', (session, sequence) => {
      for (const device of this.devices.values()) if (device.session === session) device.safe(sequence);
    });
    this.server = createServer((socket) => this.meet(new Peer(socket)));
  }

  private meet(peer: Peer): void {
    this.peers.add(peer);
    peer.on('close', () => this.peers.delete(peer));
    peer.on('problem', (text) => {
      if (!peer.hello) this.emit('stranger', text);
    });
    peer.on('hello', (hello) => {
      try {
        this.welcome(hello, peer);
      } catch (error) {
        if (!(error instanceof Refusal)) throw error;
        peer.complain(error.message);
        this.emit('stranger', `${hello.device}: ${error.message}`);
        peer.close();
      }
    });
  }

  /** Ends what an instrument on another machine says: it was paired, and is no more. */
  dismiss(device: string): void {
    for (const peer of this.peers) if (peer.door && peer.hello?.device === device) peer.close();
  }

  /** @throws Refusal when its channels cannot be used, or another of its name speaks */
  private welcome(hello: Hello, peer: Peer): void {
    const settings = this.settings.get(hello.device) ?? plainSettings;
    const known = this.devices.get(hello.device);
    if (known?.isSame(hello, settings)) return known.attach(peer);
    // The same instance that has changed itself is no stranger; another one has to wait until the first is silent.
    const itself = hello.instance !== undefined && hello.instance === known?.hello.instance;
    if (known?.heard && !itself)
      throw new Refusal(
        `an instrument of the name "${hello.device}" is connected and speaks; give this one another name`,
      );
    const device = Device.of(hello, settings, this.journal, peer, itself ? known : undefined);
    known?.lose();
    this.devices.set(hello.device, device);
    this.emit('device', device);
  }

  /** Takes up a device of an earlier life of the recorder. */
  restore(device: Device): void {
    this.devices.set(device.hello.device, device);
  }

  /** @returns the port it listens on. @throws when the port is taken */
  async listen(port: number): Promise<number> {
    return listening(this.server, { port, host: '127.0.0.1' });
  }

  /** For instruments on other machines. @returns the port it listens on. @throws when the port is taken */
  async listenOutside(port: number, tls: TlsOptions): Promise<number> {
    const met = (socket: Socket) => this.meet(new Peer(socket, this.door));
    this.outside = createSecureServer({ ...tls, handshakeTimeout: 10_000 }, met);
    this.outside.maxConnections = mostOutside;
    return listening(this.outside, { port });
  }

  async close(): Promise<void> {
    for (const device of this.devices.values()) device.leave();
    for (const peer of this.peers) peer.close();
    for (const server of [this.server, this.outside])
      if (server?.listening) await new Promise<void>((resolve) => server.close(() => resolve()));
  }
}
