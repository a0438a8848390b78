import { setImmediate } from 'node:timers/promises';
import type { SuvokMessage } from '../contract/instruments/bench-link.ts';
import { Chance } from './chance.ts';
import { fullKpa, type Drive } from './driver.ts';
import { faultNames } from './faults.ts';
import type { Elsewhere } from '../instrument/elsewhere.ts';
import { Link } from '../instrument/link.ts';
import { EngineLogger, loggerChannels, loggerRateHz } from './logger.ts';
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
  /** The bay that the dyno and the logger say they stand in. */
  bay?: string | undefined;
  /** From the second on the instruments carry it in their names, and the first one's weather station serves them. */
  number: number;
  /** Where Suvok is another machine. */
  elsewhere?: Elsewhere | undefined;
}

/** Readings a second while nothing happens and time is played fast. */
const idleRateHz = 5;
const realTickMs = 10;
const aliveEveryMs = 1000;
/** Played after a pull before the clock stands still again, s. */
const afterPullS = 4;
/** A light pedal before the throttle is opened, kPa. */
const lightKpa = 45;
/** And on the way to a set point, s. */
const wayToHoldS = 2;

type Asked = Extract<SuvokMessage, { type: 'sweep' | 'steps' | 'coast' | 'idle' | 'start' | 'transient' | 'cruise' }>;

const weatherHello = {
  device: 'stand-in-weather',
  name: 'Stand-in weather station',
  kind: 'weather' as const,
  channels: weatherChannels,
  rateHz: 1,
  commands: [],
  faults: [],
};

/** The stand-in bay: a dyno with a car on it, the car's engine logger, and a weather station, each an instrument of its own. */
export class Bench {
  private readonly weather: Weather;
  private readonly dyno: StandInDyno;
  private readonly logger: EngineLogger;
  private readonly links: { dyno: Link; logger: Link; weather?: Link };
  private nextWeatherS = 0;
  private nextFrameS = 0;
  private nextLogS = 0;
  private tick: NodeJS.Timeout | undefined;
  private work: Promise<void> = Promise.resolve();
  /** Pulls asked for and not played to their end. */
  private playing = 0;

  constructor(
    private readonly settings: BenchSettings,
    private readonly fast: boolean,
  ) {
    const { seed } = settings;
    const chance = new Chance(seed);
    this.weather = new Weather(chance);
    this.dyno = new StandInDyno(this.weather, chance, machines[settings.machine]);
    // Luck of its own, so that the dyno reads the same with and without a logger.
    this.logger = new EngineLogger(new Chance(seed + 7919));
    this.links = this.introduced();
    // Played fast, the clock stands still until somebody listens.
    if (fast) {
      this.work = Promise.all(Object.values(this.links).map((link) => link.connected)).then(() => this.playFast(1));
      // While the clock stands still no frame comes; the instruments say that they are there.
      this.tick = setInterval(() => this.playing === 0 && this.sayReady(), aliveEveryMs);
    } else this.playInRealTime();
  }

  private introduced(): { dyno: Link; logger: Link; weather?: Link } {
    const { host, port, rateHz, machine: kind, elsewhere } = this.settings;
    const machine = machines[kind];
    const link = (hello: Omit<ConstructorParameters<typeof Link>[2], 'type'>, silent = false) =>
      new Link(
        host,
        port,
        { type: 'hello', ...hello, ...this.dated() },
        (message) => silent || this.obey(message),
        elsewhere,
      );
    const loaded = machine.profile.kind !== 'inertia-roller';
    return {
      dyno: link({
        device: `${machine.device}${this.numbered('-')}`,
        name: `${machine.name}${this.numbered(' ')}`,
        ...this.placed(),
        kind: machine.profile.kind,
        channels: channelsOf(machine),
        rateHz,
        commands: [
          'configure',
          'sweep',
          'coast',
          'idle',
          'start',
          'stop',
          'fault',
          ...(loaded ? (['steps', 'hold', 'transient', 'cruise'] as const) : []),
        ],
        faults: [...faultNames],
        dyno: machine.profile,
      }),
      logger: link(this.loggerHello(), true),
      ...(this.settings.number === 1 && { weather: link(weatherHello, true) }),
    };
  }

  private numbered(before: string): string {
    const { number } = this.settings;
    return number === 1 ? '' : `${before}${number}`;
  }

  private placed(): { bay?: string } {
    const { bay } = this.settings;
    return bay === undefined ? {} : { bay };
  }

  private dated(): { startedAt?: string } {
    const { startedAt } = this.settings;
    return startedAt === undefined ? {} : { startedAt };
  }

  private loggerHello() {
    return {
      device: `stand-in-logger${this.numbered('-')}`,
      name: `Stand-in engine logger${this.numbered(' ')}`,
      ...this.placed(),
      kind: 'engine-logger' as const,
      channels: loggerChannels(this.dyno.car),
      rateHz: loggerRateHz,
      commands: [],
      faults: [],
    };
  }

  close(): void {
    clearInterval(this.tick);
    for (const link of Object.values(this.links)) link.close();
  }

  private obey(message: SuvokMessage): void {
    switch (message.type) {
      case 'configure':
        return this.configure(message);
      case 'fault':
        return this.dyno.faults.set(message.faults);
      case 'stop':
        return this.dyno.driver.stop();
      case 'sweep':
      case 'steps':
      case 'coast':
      case 'idle':
      case 'start':
      case 'transient':
      case 'cruise':
        if (this.fast) {
          this.playing++;
          this.work = this.work.then(() => this.pullFast(message));
        } else if (message.afterS) setTimeout(() => this.begin(message), message.afterS * 1000);
        else this.begin(message);
        return;
      case 'hold':
        return this.hold(message);
      case 'arm':
      case 'problem':
      case 'safe':
      case 'paired':
      case 'welcome':
        // The stand-ins do not offer the first, can do nothing about the second, and leave the others to their links.
        return;
    }
  }

  private configure(message: Extract<SuvokMessage, { type: 'configure' }>): void {
    const before = this.dyno.car;
    this.dyno.configure(message);
    // Another controller offers other channels.
    if (this.dyno.car !== before) {
      this.links.logger.introduce({ type: 'hello', ...this.loggerHello(), ...this.dated() });
      if (this.fast) this.work = this.work.then(() => this.playFast(1));
    }
  }

  private begin(asked: Asked): void {
    this.dyno.setLoad(asked.type === 'sweep' ? asked : {});
    this.dyno.driver.begin(driveOf(asked));
  }

  /** Played fast, a set point is gone to and held for as long as it is wanted. */
  private hold({ engineSpeedRpm, loadNm, manifoldKpa, holdS }: Extract<SuvokMessage, { type: 'hold' }>): void {
    const keep = () => {
      this.dyno.setLoad(loadNm === undefined ? {} : { loadNm });
      this.dyno.driver.keep(engineSpeedRpm, manifoldKpa);
    };
    if (!this.fast || holdS === undefined) return keep();
    this.playing++;
    this.work = this.work.then(async () => {
      keep();
      await this.playFast(holdS + wayToHoldS);
      this.playing--;
      this.sayReady();
    });
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

  private async pullFast(asked: Asked): Promise<void> {
    await this.links.logger.connected;
    const waitS = asked.afterS ?? 0;
    for (let passed = 0; passed < waitS; passed += 1 / idleRateHz) {
      this.dyno.rest(1 / idleRateHz);
      this.report();
      await this.drained();
    }
    this.begin(asked);
    await this.playFast(1);
    while (this.dyno.driver.busy) await this.playFast(0.5);
    await this.playFast(afterPullS);
    this.playing--;
    this.sayReady();
  }

  private sayReady(): void {
    for (const link of Object.values(this.links)) link.send({ type: 'status', state: 'ready' });
  }

  private async playFast(seconds: number): Promise<void> {
    const end = this.dyno.time + seconds;
    while (this.dyno.time < end) this.advance(1 / this.settings.rateHz);
    await this.drained();
  }

  private async drained(): Promise<void> {
    await Promise.all([this.links.dyno.drained(), this.links.logger.drained()]);
    // Whoever listens in this very process hears both before there is more.
    await setImmediate();
  }

  private advance(seconds: number): void {
    this.dyno.pass(seconds);
    this.report();
  }

  private report(): void {
    const { time } = this.dyno;
    if (time >= this.nextWeatherS) {
      this.weather.pass(1);
      this.links.weather?.frame(time, this.weather.read());
      this.nextWeatherS = time + 1;
    }
    if (time >= this.nextLogS - 1e-9) {
      this.nextLogS = time + 1 / loggerRateHz;
      const { dyno, logger } = this;
      this.links.logger.frame(logger.clock(time), logger.read(dyno.car, time, dyno.reading(), dyno.faults));
    }
    if (time < this.nextFrameS - 1e-9) return;
    this.nextFrameS = time;
    this.links.dyno.frame(time, this.dyno.read());
  }
}

function driveOf(asked: Asked): Drive {
  switch (asked.type) {
    case 'sweep':
      return { kind: 'pull', fromRpm: asked.fromRpm, toRpm: asked.toRpm };
    case 'steps':
      return {
        kind: 'steps',
        speedsRpm: asked.speedsRpm,
        loadsKpa: asked.manifoldKpa,
        dwellS: asked.dwellS,
      };
    case 'idle':
    case 'start':
      return { kind: asked.type, forS: asked.forS };
    case 'transient':
      return {
        kind: 'steps',
        speedsRpm: [asked.engineSpeedRpm, asked.engineSpeedRpm],
        loadsKpa: [lightKpa, fullKpa],
        dwellsS: [4, 6],
      };
    case 'cruise':
      return { kind: 'steps', speedsRpm: [asked.engineSpeedRpm], wheelKw: asked.wheelKw, dwellS: asked.forS };
    case 'coast':
      return { kind: 'coast-down', fromRpm: asked.fromRpm, toRpm: asked.toRpm };
  }
}
