import type { SuvokMessage } from '../contract/bench-link.ts';
import { Chance } from './chance.ts';
import { faultNames } from './faults.ts';
import { Link } from './link.ts';
import { machines, type MachineKind } from './machine.ts';
import { channelsOf, StandInDyno } from './stand-in-dyno.ts';
import { Weather, weatherChannels } from './weather.ts';

export interface BenchSettings {
  host: string;
  port: number;
  seed: number;
  rateHz: number;
  machine: MachineKind;
  /** Wall time at device time 0; set when the stand-ins play a day that is past. */
  startedAt?: string | undefined;
}

/** Readings a second while nothing happens and time is played fast. */
const idleRateHz = 5;
const realTickMs = 10;
const aliveEveryMs = 1000;
/** Played after a pull before the clock stands still again, s. */
const afterPullS = 14;

/** The stand-in bay: a dyno with a car on it, and a weather station, each an instrument of its own. */
export class Bench {
  private readonly chance: Chance;
  private readonly weather: Weather;
  private readonly dyno: StandInDyno;
  private readonly dynoLink: Link;
  private readonly weatherLink: Link;
  private nextWeatherS = 0;
  private nextFrameS = 0;
  private tick: NodeJS.Timeout | undefined;
  private work: Promise<void> = Promise.resolve();

  constructor(
    private readonly settings: BenchSettings,
    private readonly fast: boolean,
  ) {
    const { host, port, startedAt } = settings;
    this.chance = new Chance(settings.seed);
    this.weather = new Weather(this.chance);
    const machine = machines[settings.machine];
    this.dyno = new StandInDyno(this.weather, this.chance, machine);
    const started = startedAt === undefined ? {} : { startedAt };
    this.dynoLink = new Link(
      host,
      port,
      {
        type: 'hello',
        protocol: 1,
        device: machine.device,
        name: machine.name,
        kind: machine.profile.kind,
        channels: channelsOf(machine),
        rateHz: settings.rateHz,
        commands: ['configure', 'sweep', 'stop', 'fault'],
        faults: [...faultNames],
        dyno: machine.profile,
        ...started,
      },
      (message) => this.obey(message),
    );
    this.weatherLink = new Link(
      host,
      port,
      {
        type: 'hello',
        protocol: 1,
        device: 'stand-in-weather',
        name: 'Stand-in weather station',
        kind: 'weather',
        channels: weatherChannels,
        rateHz: 1,
        commands: [],
        faults: [],
        ...started,
      },
      () => undefined,
    );
    // Played fast, the clock stands still until somebody listens.
    if (fast) {
      this.work = Promise.all([this.dynoLink.connected, this.weatherLink.connected]).then(() => this.playFast(1));
      // While the clock stands still no frame comes; the instruments say that they are there.
      this.tick = setInterval(() => this.sayReady(), aliveEveryMs);
    } else this.playInRealTime();
  }

  close(): void {
    clearInterval(this.tick);
    this.dynoLink.close();
    this.weatherLink.close();
  }

  private obey(message: SuvokMessage): void {
    switch (message.type) {
      case 'configure':
        return this.dyno.configure(message);
      case 'fault':
        return this.dyno.faults.set(message.faults);
      case 'stop':
        return this.dyno.driver.stop();
      case 'sweep':
        if (this.fast) {
          this.work = this.work.then(() => this.pullFast(message));
        } else {
          const begin = () => this.dyno.driver.sweep(message.fromRpm, message.toRpm);
          if (message.afterS) setTimeout(begin, message.afterS * 1000);
          else begin();
        }
    }
  }

  private playInRealTime(): void {
    const started = performance.now();
    this.tick = setInterval(() => {
      const due = (performance.now() - started) / 1000;
      // After a long pause of this process the stand-ins go on from now instead of hurrying.
      if (due - this.dyno.time > 1) this.dyno.rest(due - this.dyno.time);
      while (this.dyno.time < due) this.advance(1 / this.settings.rateHz);
    }, realTickMs);
  }

  private async pullFast(message: Extract<SuvokMessage, { type: 'sweep' }>): Promise<void> {
    const waitS = message.afterS ?? 0;
    for (let passed = 0; passed < waitS; passed += 1 / idleRateHz) {
      this.dyno.rest(1 / idleRateHz);
      this.report();
      await this.dynoLink.drained();
    }
    this.dyno.driver.sweep(message.fromRpm, message.toRpm);
    await this.playFast(1);
    while (this.dyno.driver.busy) await this.playFast(0.5);
    await this.playFast(afterPullS - 10);
    this.sayReady();
  }

  private sayReady(): void {
    for (const link of [this.dynoLink, this.weatherLink]) link.send({ type: 'status', state: 'ready' });
  }

  private async playFast(seconds: number): Promise<void> {
    const end = this.dyno.time + seconds;
    while (this.dyno.time < end) this.advance(1 / this.settings.rateHz);
    await this.dynoLink.drained();
  }

  private advance(seconds: number): void {
    this.dyno.pass(seconds);
    this.report();
  }

  private report(): void {
    const { time } = this.dyno;
    if (time >= this.nextWeatherS) {
      this.weather.pass(1);
      this.weatherLink.frame(time, this.weather.read());
      this.nextWeatherS = time + 1;
    }
    if (time < this.nextFrameS - 1e-9) return;
    this.nextFrameS = time;
    this.dynoLink.frame(time, this.dyno.read());
  }
}
