import { createHash, randomBytes, timingSafeEqual } from 'node:crypto';
import { EventEmitter } from 'node:events';
import type { PairMessage } from '../../contract/instruments/bench-link.ts';
import type { BaysState } from '../../contract/bays/live.ts';
import type { Outside } from '../../contract/people/people.ts';
import { Refusal } from '../../core/refusal.ts';
import type { Door } from '../devices/peer.ts';
import type { RecorderMemory } from '../memory/recorder-memory.ts';

/** After so many wrong codes the right one is worth nothing either. */
const mostWrongCodes = 5;

interface PairedEvents {
  changed: [];
  /** Its key is worth nothing from now on. */
  revoked: [device: string];
}

/**
 * Instruments on other machines. An owner is shown a code; the first one that
 * says it gets a key for its name, which it says in every hello. Of codes and
 * keys only hashes are kept here.
 */
export class PairedInstruments extends EventEmitter<PairedEvents> implements Door {
  private outside: Outside | null = null;
  private offered: { hash: Buffer; until: string; wrong: number } | undefined;

  constructor(private readonly memory: RecorderMemory) {
    super();
  }

  /** Instruments on other machines can reach it from now on. */
  opened(outside: Outside | null): void {
    this.outside = outside;
  }

  /** One code at a time: an earlier one is not taken any more. @throws Refusal where nobody could say it */
  offer({ code, until }: { code: string; until: string }): void {
    if (!this.outside)
      throw new Refusal(
        'Suvok listens to this machine alone: start it with HOST, the name or address that other machines reach this one by.',
      );
    this.offered = { hash: hashOf(plain(code)), until, wrong: 0 };
    this.emit('changed');
  }

  withdraw(): void {
    this.offered = undefined;
    this.emit('changed');
  }

  /** @throws Refusal where the code is not the one that is shown now */
  async pair({ code, device }: PairMessage): Promise<string> {
    const offered = this.now;
    if (!offered) throw new Refusal('no pairing is open: an owner opens one on Devices');
    if (!timingSafeEqual(offered.hash, hashOf(plain(code)))) {
      if (++offered.wrong >= mostWrongCodes) this.withdraw();
      throw new Refusal('this is not the code that is shown on Devices');
    }
    // Once: taken back before anything is waited for.
    this.offered = undefined;
    const key = randomBytes(32).toString('base64url');
    const others = this.memory.now.paired.filter((one) => one.device !== device);
    const one = { device, at: new Date().toISOString(), keyHash: hashOf(key).toString('base64url') };
    await this.memory.keep({ paired: [...others, one] });
    // An instrument with an earlier key of this name is disconnected.
    this.emit('revoked', device);
    this.emit('changed');
    return key;
  }

  admits(device: string, key: string | undefined): boolean {
    const one = this.memory.now.paired.find((paired) => paired.device === device);
    if (!one || key === undefined) return false;
    return timingSafeEqual(Buffer.from(one.keyHash, 'base64url'), hashOf(key));
  }

  /** @throws Refusal where none of the name is paired */
  async revoke(device: string): Promise<void> {
    const { paired } = this.memory.now;
    if (!paired.some((one) => one.device === device)) throw new Refusal(`No instrument called ${device} is paired.`);
    await this.memory.keep({ paired: paired.filter((one) => one.device !== device) });
    this.emit('revoked', device);
    this.emit('changed');
  }

  state(): BaysState['pairing'] {
    const instruments = this.memory.now.paired.map(({ device, at }) => ({ device, at }));
    return { outside: this.outside, until: this.now?.until ?? null, instruments };
  }

  /** The code that lets an instrument in now. */
  private get now() {
    if (this.offered && Date.parse(this.offered.until) < Date.now()) this.offered = undefined;
    return this.offered;
  }
}

/** A code as it is meant, however it is written. */
const plain = (code: string) => code.replace(/[\s-]/g, '').toUpperCase();
const hashOf = (text: string) => createHash('sha256').update(text).digest();
