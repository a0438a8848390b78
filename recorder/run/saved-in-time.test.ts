import { afterEach, beforeEach, expect, jest, test } from '@jest/globals';
import type { Hello } from '../../contract/instruments/bench-link.ts';
import { chance } from '../../core/testing/chance.ts';
import { MemoryFiles } from '../testing/memory-files.ts';
import { MemoryStore } from '../testing/memory-store.ts';
import { RecorderLife } from '../testing/recorder-life.ts';
import { rollerHello, TestInstrument } from '../testing/test-instrument.ts';
import { shortOrWhole } from '../../core/testing/short-or-whole.ts';

/**
 * Pull after pull beside loggers that pause, burst, play fast, begin anew and go
 * away, on a spool of small segments that are given up as they age: each pull is
 * saved, whole or with what is missing said, within the time that is promised.
 */
const pullsOfAWorld = 5;
/** Two hundred pulls in the soak; otherwise some of those that once waited for ever. */
const seeds = shortOrWhole(
  [10, 13],
  Array.from({ length: 40 }, (_, seed) => seed),
);
/** After its last row a run is saved with what is there, s. */
const promisedS = 15;
/** The dyno's frames, and how many arrive together, s. */
const frameS = 0.04;
const atOnce = 5;

const ways = ['speaks', 'speaks', 'stands', 'says nothing', 'gathers', 'plays fast', 'is away'] as const;

/** A logger that says its own count of rows, so that what is stored shows what is missing. */
class PlayedLogger {
  private way: (typeof ways)[number] = 'speaks';
  private clockS = 0;
  private dueS = 0;
  private marks = 0;
  private readonly held: [number, number][] = [];
  instrument: TestInstrument;

  constructor(
    private readonly name: string,
    private readonly rateHz: number,
  ) {
    this.instrument = this.anew();
  }

  private anew(): TestInstrument {
    const hello: Hello = {
      ...rollerHello,
      protocol: 2,
      instance: `${this.name} ${this.marks}`,
      device: this.name,
      name: this.name,
      kind: 'engine-logger',
      channels: [
        { name: 'engineSpeed', unit: 'rpm' },
        { name: 'mark', unit: '' },
      ],
      dyno: undefined,
      engineToDrumRatio: undefined,
    };
    return new TestInstrument(hello);
  }

  /** Goes on in another way: what it had gathered is said at once, and one that was away comes back. */
  turn(way: PlayedLogger['way'], life: RecorderLife): void {
    if (this.way === 'is away' && way !== 'is away') life.connect(this.instrument);
    this.way = way;
    if (way === 'is away') this.instrument.peer.close();
    for (const [time, mark] of this.held.splice(0)) this.instrument.frame(time, [3000, mark]);
  }

  /** Is switched off and on: another session, with a clock of its own. */
  restart(life: RecorderLife): void {
    this.turn('speaks', life);
    this.clockS = this.dueS = 0;
    this.instrument.peer.close();
    this.instrument = this.anew();
    life.connect(this.instrument);
  }

  pass(seconds: number): void {
    if (this.way === 'stands') return;
    const until = this.clockS + seconds * (this.way === 'plays fast' ? 12 : 1);
    for (; this.dueS < until; this.dueS += 1 / this.rateHz) {
      if (this.way === 'says nothing') continue;
      const row: [number, number] = [this.dueS, this.marks++];
      if (this.way === 'gathers') this.held.push(row);
      else this.instrument.frame(row[0], [3000, row[1]]);
    }
    this.clockS = until;
  }

  get connected(): boolean {
    return this.way !== 'is away';
  }
}

class World {
  readonly store = new MemoryStore();
  private readonly files = new MemoryFiles();
  private readonly dyno = new TestInstrument({ ...rollerHello, protocol: 2, instance: 'dyno' });
  private readonly loggers: PlayedLogger[];
  private readonly segmentBytes: number;
  private life!: RecorderLife;
  timeS = 0;
  private speed = 20;

  constructor(readonly draw: () => number) {
    this.segmentBytes = 4000 * 10 ** (2 * draw());
    this.loggers = ['one', 'two'].map((name) => new PlayedLogger(name, 2 + 18 * draw()));
  }

  async begin(): Promise<void> {
    this.life = await RecorderLife.begin(this.files, this.store, this.segmentBytes);
    this.life.connect(this.dyno);
    for (const logger of this.loggers) if (logger.connected) this.life.connect(logger.instrument);
  }

  async end(): Promise<void> {
    await this.life.die();
  }

  private async happens(): Promise<void> {
    const logger = this.loggers[this.draw() < 0.5 ? 0 : 1]!;
    const what = this.draw();
    if (what < 0.1) logger.restart(this.life);
    else if (what < 0.15) {
      await this.life.die();
      this.files.cutPower(this.draw());
      await this.begin();
    } else logger.turn(ways[Math.floor(this.draw() * ways.length)]!, this.life);
  }

  /** Lets time pass at a pedal. @param growth of the drum's speed, rad/s² */
  async pass(seconds: number, growth: number, throttle: number): Promise<void> {
    let nextS = this.timeS + this.draw() * 20;
    const until = this.timeS + seconds;
    while (this.timeS < until) {
      for (let frame = 0; frame < atOnce; frame++) {
        this.timeS += frameS;
        this.speed = Math.max(20, this.speed + growth * frameS);
        this.dyno.frame(this.timeS, [this.speed, throttle]);
      }
      for (const logger of this.loggers) logger.pass(atOnce * frameS);
      await jest.advanceTimersByTimeAsync(1000 * atOnce * frameS);
      if (this.timeS < nextS) continue;
      nextS = this.timeS + this.draw() * 20;
      await this.happens();
    }
  }
}

beforeEach(() => void jest.useFakeTimers({ doNotFake: ['setImmediate', 'nextTick'] }));
afterEach(() => void jest.useRealTimers());

test.each(seeds)(
  'whatever loggers do, every pull is saved within the time that is promised (seed %d)',
  async (seed) => {
    const world = new World(chance(seed + 1));
    await world.begin();
    for (let pull = 1; pull <= pullsOfAWorld; pull++) {
      await world.pass(4 + 130 * world.draw(), 0, 5);
      const beganS = world.timeS;
      await world.pass(5, 15, 100);
      const liftedS = world.timeS;
      await world.pass(promisedS, -8, 5);
      expect({ seed, pull, runs: world.store.runs.size }).toEqual({ seed, pull, runs: pull });
      const { as, remarks, rows, beginning } = [...world.store.runs.values()].at(-1)!;
      expect({ seed, pull, as }).toEqual({ seed, pull, as: 'sealed' });
      // The dyno's part is whole: it never paused.
      const times = rows.get(0)!.map((row) => row[0]!);
      expect(times[0]).toBeLessThan(beganS - 1);
      expect(times.at(-1)).toBeGreaterThan(liftedS);
      expect(times.length).toBe(Math.round((times.at(-1)! - times[0]!) / frameS) + 1);
      for (const { source, name } of beginning.logs) {
        const marks = (rows.get(source) ?? []).map((row) => row[2]!);
        const holes = marks.filter((mark, at) => at > 0 && mark !== marks[at - 1]! + 1).length;
        if (!remarks.some((remark) => remark.includes(name)))
          expect({ seed, pull, name, holes }).toEqual({ seed, pull, name, holes: 0 });
      }
    }
    await world.end();
  },
);
