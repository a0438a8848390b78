import { EventEmitter } from 'node:events';
import { createServer, type Server } from 'node:net';
import type { DeviceSettings } from '../../contract/recording.ts';
import { Refusal } from '../../core/refusal.ts';
import { Device } from './device.ts';
import { Peer } from './peer.ts';

interface BenchLinkEvents {
  device: [Device];
  /** A peer that never became a device said something wrong. */
  stranger: [string];
}

/** Listens for instruments on loopback. An instrument that comes back takes its old place. */
export class BenchLink extends EventEmitter<BenchLinkEvents> {
  private readonly server: Server;
  private readonly peers = new Set<Peer>();
  private readonly devices = new Map<string, Device>();
  /** What the shop has set of instruments, by their names on the link. */
  readonly settings = new Map<string, DeviceSettings>();

  constructor() {
    super();
    this.server = createServer((socket) => {
      const peer = new Peer(socket);
      this.peers.add(peer);
      peer.on('close', () => this.peers.delete(peer));
      peer.on('problem', (text) => {
        if (!peer.hello) this.emit('stranger', text);
      });
      peer.on('hello', (hello) => {
        try {
          const device = new Device(hello, peer, this.settings.get(hello.device));
          this.devices.get(hello.device)?.replace();
          this.devices.set(hello.device, device);
          this.emit('device', device);
        } catch (error) {
          if (!(error instanceof Refusal)) throw error;
          peer.complain(error.message);
          this.emit('stranger', `${hello.device}: ${error.message}`);
          peer.close();
        }
      });
    });
  }

  /** @returns the port it listens on. @throws when the port is taken */
  async listen(port: number): Promise<number> {
    await new Promise<void>((resolve, reject) => {
      this.server.once('error', reject);
      this.server.listen(port, '127.0.0.1', () => {
        this.server.off('error', reject);
        resolve();
      });
    });
    return (this.server.address() as { port: number }).port;
  }

  async close(): Promise<void> {
    for (const peer of this.peers) peer.close();
    await new Promise<void>((resolve) => this.server.close(() => resolve()));
  }
}
