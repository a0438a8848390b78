import { EventEmitter } from 'node:events';
import type { Socket } from 'node:net';
import { ZodError } from 'zod';
import {
  deviceMessage,
  longestLine,
  soundFrame,
  type DeviceMessage,
  type Frame,
  type Hello,
  type PairMessage,
  type SuvokMessage,
} from '../../contract/instruments/bench-link.ts';
import { problemIn } from '../../contract/files/machine-and-air.ts';
import { cleanJson, UncleanInput, withoutUnseen } from '../../contract/values/text.ts';
import { Refusal } from '../../core/refusal.ts';
import { LineReader } from '../../contract/values/line-reader.ts';

/** A peer that says this many wrong things is let go. */
const mostWrong = 20;
/** A peer must introduce itself within this time, ms. */
const helloWithinMs = 5000;

interface PeerEvents {
  hello: [Hello];
  frame: [Frame];
  /** A sentence about something that went wrong on its side. */
  problem: [string];
  event: [string];
  status: [{ state: 'ready' | 'busy' | 'fault'; text?: string | undefined }];
  close: [];
}

/** Who of other machines may come in. */
export interface Door {
  /** @returns the key of an instrument that said the right code. @throws Refusal where it is not the right one */
  pair(said: PairMessage): Promise<string>;
  /** Whether an instrument of this name was given this key. */
  admits(device: string, key: string | undefined): boolean;
}

/** One instrument's connection: checks every line it sends, and speaks to it. */
export class Peer extends EventEmitter<PeerEvents> {
  hello: Hello | undefined;
  private wrong = 0;
  private readonly patience: NodeJS.Timeout;

  /** @param door of the bench link for other machines; none on loopback */
  constructor(
    private readonly socket: Socket,
    readonly door?: Door,
  ) {
    super();
    socket.setEncoding('utf8');
    socket.setNoDelay(true);
    const lines = new LineReader(
      longestLine,
      (line) => this.take(line),
      () => this.complain(`a line longer than ${longestLine} characters was skipped`),
    );
    socket.on('data', (text: string) => lines.push(text));
    socket.on('error', () => undefined);
    socket.on('close', () => {
      clearTimeout(this.patience);
      this.emit('close');
    });
    this.patience = setTimeout(() => {
      if (this.hello) return;
      this.complain('no hello came within 5 s');
      this.close();
    }, helloWithinMs);
  }

  send(message: SuvokMessage): void {
    if (this.socket.writable) this.socket.write(JSON.stringify(message) + '\n');
  }

  close(): void {
    this.socket.end();
    this.socket.destroySoon();
  }

  private take(line: string): void {
    if (this.wrong >= mostWrong) return;
    let message: DeviceMessage;
    try {
      const content: unknown = JSON.parse(line);
      message = soundFrame(content) ?? deviceMessage.parse(cleanJson(content));
    } catch (error) {
      if (error instanceof SyntaxError) return this.complain(`a line is not JSON: ${withoutUnseen(line.slice(0, 60))}`);
      if (error instanceof UncleanInput) return this.complain(`a message was not understood: ${error.message}`);
      if (error instanceof ZodError) return this.complain(`a message was not understood: ${problemIn(error)}`);
      throw error;
    }
    if (message.type === 'pair') return void this.pair(message);
    if (message.type === 'hello') return this.greet(message);
    if (!this.hello) return this.complain('the first message must be a hello');
    switch (message.type) {
      case 'frame':
        if (message.values.length !== this.hello.channels.length) {
          return this.complain(
            `frame ${message.sequence} has ${message.values.length} values for ${this.hello.channels.length} channels`,
          );
        }
        this.emit('frame', message);
        return;
      case 'event':
        this.emit('event', message.text);
        return;
      case 'status':
        this.emit('status', message);
    }
  }

  /** The key stays here: nothing that is kept of an instrument has it. */
  private greet({ key, ...hello }: Hello): void {
    if (this.hello) return this.complain('a second hello was ignored');
    if (this.door && !this.door.admits(hello.device, key))
      return this.complain(
        `"${hello.device}" is not paired, or its pairing was taken back; an owner pairs it on Devices`,
      );
    this.hello = hello;
    this.emit('hello', hello);
  }

  /** The hello may follow on the same connection. */
  private async pair(said: PairMessage): Promise<void> {
    try {
      if (this.hello) throw new Refusal('pairing comes before the hello');
      if (!this.door) throw new Refusal('only instruments on other machines are paired; say hello');
      this.send({ type: 'paired', key: await this.door.pair(said) });
    } catch (error) {
      if (!(error instanceof Refusal)) throw error;
      this.complain(error.message);
    }
  }

  /** Tells the peer and whoever listens; after too many, lets the peer go. */
  complain(text: string): void {
    this.wrong++;
    this.send({ type: 'problem', text });
    this.emit('problem', text);
    // Whoever does not begin with a hello is no instrument: a web page's request, which a browser sends line by line, ends at its first.
    if (!this.hello) this.wrong = mostWrong;
    if (this.wrong >= mostWrong) this.close();
  }
}
