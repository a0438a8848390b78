import type { ConfigureMessage } from '../contract/instruments/bench-link.ts';
import { Absorber, type LoadControl } from './absorber.ts';
import { carNamed, type Car } from './car.ts';
import { Chance } from './chance.ts';
import { Driver } from './driver.ts';
import { boostGoal, boostTarget, engineAt, type EngineState } from './engine.ts';
import { Faults } from './faults.ts';
import { Heat } from './heat.ts';
import { Idling } from './idling.ts';
import type { CarReading } from './logger.ts';
import { drumChannels, machines, type Drum, type Machine } from './machine.ts';
import { fuelShare, manifoldKpa, tableError } from './part-load.ts';
import type { Weather } from './weather.ts';

/** What a dyno reads of the car beside its own drum or hubs: pickup and pedal. */
const carChannels = [
  { name: 'engineSpeed', unit: 'rpm' },
  { name: 'throttle', unit: '%' },
];

/** All channels of a stand-in dyno with a car on it. */
export function channelsOf(machine: Machine): { name: string; unit: string }[] {
  return [...drumChannels(machine), ...carChannels];
}

const stepS = 0.001;
/** Steps from one look at the engine to the next. */
const engineEvery = 5;
/** Driveline: how stiff between engine and drum (as a natural frequency of the engine on it, Hz) and how damped. */
const shuffleHz = 5.5;
const shuffleDamping = 0.14;
/** Brakes for each kg·m² that turns, N·m. */
const brakeNmPerKgM2 = 22;
/** Healthy tyres creep by so much at full torque. */
const creepShare = 0.011;
/** Tyres and gearbox out of gear. */
const rollingNm = 28;
const rollingNmPerRadS = 0.25;
/** Of the torque of a car that drives both axles the front one takes so much. */
const frontShare = 0.4;
/** Out of gear the engine idles, rpm. */
const declutchedRpm = 950;
/** From the beginning of a cold start to the starter, s. */
const startsAfterS = 3;
/** Coolant beyond this has the controller limp, °C. */
const limpC = 114;

/** Car, driveline, drum or hubs and their load, stepped a millisecond at a time. */
export class StandInDyno {
  readonly driver: Driver;
  readonly faults = new Faults();
  car: Car = carNamed('');
  private items: ConfigureMessage['items'] = [];
  private readonly heat = new Heat();
  private readonly absorber: Absorber | undefined;
  private drumSpeed: number;
  private engineSpeed: number;
  private twist = 0;
  private steps = 0;
  private engine: EngineState | undefined;
  private boostKpa = 0;
  private load: { rampRpmPerS?: number | undefined; loadNm?: number | undefined } = {};
  /** This pull's own luck: no two are quite alike. */
  private luck = { scale: 1, tilt: 0 };
  private timeS = 0;
  /** Of its own luck, so that pulls stay as they are. */
  private readonly idling = new Idling(new Chance(97));

  constructor(
    private readonly weather: Weather,
    private readonly chance: Chance = new Chance(1),
    readonly machine: Machine = machines['inertia-roller'],
  ) {
    this.driver = new Driver(() => this.newLuck());
    this.driver.drives(this.car);
    this.drumSpeed = this.radS(this.car.idleRpm) / this.ratio;
    if (machine.rampRpmPerS) this.absorber = new Absorber(machine.profile.loadCellLagS ?? 0, machine.zeroNm ?? 0);
    this.engineSpeed = this.drumSpeed;
  }

  configure(message: ConfigureMessage): void {
    const car = carNamed(message.vehicle);
    if (car !== this.car) {
      this.car = car;
      this.drumSpeed = this.radS(car.idleRpm) / this.ratio;
      this.engineSpeed = this.drumSpeed;
      this.twist = 0;
      this.boostKpa = 0;
    }
    this.items = message.items;
    this.driver.drives(car);
  }

  /** How the load behaves in the pulls that follow: its own ramp, another one, or one torque. */
  setLoad(load: { rampRpmPerS?: number | undefined; loadNm?: number | undefined }): void {
    this.load = load;
  }

  /** Lets time pass. @param seconds a multiple of a millisecond */
  pass(seconds: number): void {
    const steps = Math.round(seconds / stepS);
    for (let step = 0; step < steps; step++) this.step();
  }

  /** Time in which nothing but heat happens, as between pulls. */
  rest(seconds: number): void {
    this.timeS += seconds;
    for (let passed = 0; passed < seconds; passed++) this.heat.pass(1, 4, this.weather.air.temperatureC);
  }

  get time(): number {
    return this.timeS;
  }

  private get rpm(): number {
    return (this.engineSpeed * this.ratio * 60) / (2 * Math.PI);
  }

  /** Engine speed as a share of the pull's top. */
  private get topShare(): number {
    return this.rpm / this.car.sweepToRpm;
  }

  /** Engine ÷ drum speed without creep. */
  private get ratio(): number {
    return this.car.ratio * this.machine.ratioFactor;
  }

  private get inletC(): number {
    return this.heat.inletC(this.weather.air.temperatureC) + this.faults.soakC + 0.12 * this.boostKpa;
  }

  /** Engine ÷ drum speed beyond the ratio: tyres creep under load, a converter most at low speed; bolted hubs do not. */
  private get creep(): number {
    const { throttle } = this.driver;
    if (this.driver.declutched) return 1;
    const converter = (this.car.converterShare ?? 0) * Math.exp(-(this.rpm - this.car.sweepFromRpm) / 500);
    const tyres =
      this.machine.profile.kind === 'hub'
        ? 0
        : creepShare * Math.max(0, throttle) + this.faults.slip(this.topShare, throttle, this.timeS);
    return 1 + tyres + throttle * Math.max(0, converter);
  }

  /** What a pickup at the crank sees: the drum's speed with its creep, or idle out of gear. */
  private get crankRpm(): number {
    if (this.driver.outOfGear) return this.idling.rpm;
    if (this.driver.declutched) return declutchedRpm;
    return ((this.drumSpeed * this.ratio * 60) / (2 * Math.PI)) * this.creep;
  }

  /** What the dyno reads now, in the order of `channelsOf`. */
  read(): number[] {
    return [
      ...this.motion(),
      Math.round((this.crankRpm + this.chance.normal(2)) / 5) * 5,
      this.noisy(this.driver.throttle * 100, 0.2, 1),
    ];
  }

  private get ambientKpa(): number {
    return this.weather.air.pressureHpa / 10;
  }

  private get manifoldKpa(): number {
    return manifoldKpa(this.driver.throttle, this.ambientKpa, this.boostKpa);
  }

  /** What there is for an engine logger to read. */
  reading(): CarReading {
    const { crankRpm, manifoldKpa, ambientKpa } = this;
    const idles = this.driver.outOfGear !== undefined;
    return {
      idle: idles
        ? { lambda: this.idling.lambda(this.faults, this.heat.coolantC), batteryV: this.idling.batteryV }
        : undefined,
      manifoldKpa: idles ? (this.faults.has('vacuum leak') ? 38 : 32) : manifoldKpa,
      ambientKpa,
      partLoadLean:
        (this.faults.cruiseLambda * (1 + tableError(this.car, crankRpm, manifoldKpa, ambientKpa))) /
        fuelShare(this.items, crankRpm, manifoldKpa),
      rpm: this.crankRpm,
      throttle: this.driver.throttle,
      topShare: this.topShare,
      engine: this.engine,
      boostKpa: this.boostKpa,
      boostTargetKpa: boostTarget(this.car, this.items, this.rpm),
      inletC: this.inletC,
      coolantC: this.heat.coolantC,
      oilC: this.heat.oilC,
      ethanolPct: 9,
    };
  }

  private noisy(value: number, deviation: number, digits: number): number {
    return Number((value + this.chance.normal(deviation)).toFixed(digits));
  }

  /** Whether the car turns a drum: one that drives an axle only leaves the other's standing. */
  private drives({ axle }: Drum): boolean {
    const { drums } = this.machine;
    return this.car.allWheel === true || axle === 'rear' || drums.every((drum) => drum.axle === axle);
  }

  private get driven(): readonly Drum[] {
    return this.machine.drums.filter((drum) => this.drives(drum));
  }

  /** All that turns with the driven drums, kg·m². */
  private get turningKgM2(): number {
    return this.machine.profile.inertiaKgM2 * this.driven.length;
  }

  /** A drum's share of the load on all of them. */
  private loadShare(drum: Drum): number {
    const axles = new Set(this.driven.map(({ axle }) => axle));
    if (axles.size < 2) return drum.share;
    return drum.share * (drum.axle === 'front' ? frontShare : 1 - frontShare);
  }

  /** Speeds of all drums or hubs, then their loads. */
  private motion(): number[] {
    const { drums, noise, profile, zeroNm = 0 } = this.machine;
    const load = (this.absorber?.readNm ?? 0) - zeroNm;
    const behind = (drum: Drum) =>
      drum.axle === 'front' ? this.faults.axleSlip(this.topShare, this.driver.throttle) : 0;
    const speeds = drums.map((drum) =>
      this.drives(drum) ? this.noisy(this.drumSpeed * drum.speedFactor * (1 - behind(drum)), noise.speed, 4) : 0,
    );
    if (profile.kind === 'inertia-roller') return speeds;
    return [
      ...speeds,
      ...drums.map((drum) =>
        this.noisy((this.drives(drum) ? load * this.loadShare(drum) : 0) + zeroNm / drums.length, noise.torque, 2),
      ),
    ];
  }

  /** Out of gear the engine turns by itself, or is started. */
  private idle(): void {
    const { driver, idling, heat } = this;
    if (!driver.outOfGear) return idling.run();
    if (driver.outOfGear === 'starting' && driver.sinceS <= stepS) {
      heat.standOvernight(this.weather.air.temperatureC);
      idling.off();
    }
    // The starter turns a moment after the recording has begun.
    if (driver.outOfGear === 'starting' && driver.sinceS > startsAfterS && driver.sinceS <= startsAfterS + stepS)
      idling.crank();
    idling.step(stepS, this.faults, heat.coolantC);
  }

  private step(): void {
    const { car, heat, weather, driver, faults } = this;
    const { air } = weather;
    const { rpm, topShare } = this;
    driver.step(stepS, rpm, {
      manifoldKpa: this.manifoldKpa,
      wheelKw: ((this.absorber?.torqueNm ?? 0) * this.drumSpeed) / 1000,
    });
    this.idle();
    this.breathe(rpm, topShare);
    // The engine answers slowly beside a millisecond; a step in five is enough to follow it.
    if (!this.engine || this.steps++ % engineEvery === 0)
      this.engine = engineAt(car, this.items, Math.max(rpm, 600), {
        air: { temperatureC: air.temperatureC, dryHpa: weather.dryHpa },
        inletC: this.inletC,
        boostKpa: this.boostKpa,
        knockC: faults.knockC,
        leanBy: faults.lambda(topShare),
        fuelShare: fuelShare(this.items, rpm, this.manifoldKpa),
        pumpShare: faults.pumpShare,
        injectorShare: faults.injectorShare,
      });
    const luck = this.luck.scale * (1 + this.luck.tilt * ((rpm - car.sweepFromRpm) / car.sweepToRpm - 0.35));
    const drag = 0.07 * car.plainTorqueNm * (rpm / car.sweepToRpm + 0.3);
    const limited = rpm > faults.limiterRpm(car.limiterRpm, car.sweepToRpm) ? 0 : 1;
    const limps = heat.coolantC > limpC ? 0.6 : 1;
    const left = limited * limps * faults.torqueLeft(topShare, driver.throttle, stepS);
    const crank = driver.throttle * left * (this.engine.torqueNm * luck + drag) - drag;
    const lost = this.creep - 1 - (this.machine.profile.kind === 'hub' ? 0 : creepShare * driver.throttle);
    const atDrum = crank * this.ratio * (crank > 0 ? car.efficiency * (1 - 2 * Math.max(0, lost)) : 1);
    this.turn(driver.declutched ? 0 : atDrum);
    this.timeS += stepS;
    heat.pass(stepS, Math.max(2, (crank * this.radS(rpm)) / 1000), air.temperatureC);
  }

  /** Boost follows what turbine and controller allow. */
  private breathe(rpm: number, topShare: number): void {
    const { turbo } = this.car;
    if (!turbo) return;
    const { throttle } = this.driver;
    const over = this.boostKpa > turbo.cutKpa;
    const goal =
      boostGoal(this.car, this.items, rpm, this.engine?.knockRetardDeg) *
      Math.max(0, throttle - 0.3) *
      (1 / 0.7) *
      this.faults.boostShare(topShare, throttle, over);
    const lagS = goal < this.boostKpa ? 0.08 : turbo.lagS * this.faults.turboLag;
    this.boostKpa += ((goal - this.boostKpa) / lagS) * stepS;
  }

  /** Engine and wheels against drum or hubs, a spring between them. */
  private turn(atDrum: number): void {
    const { car, machine, driver } = this;
    const inertia = car.engineInertiaKgM2 * this.ratio ** 2;
    const stiffness = inertia * (2 * Math.PI * shuffleHz) ** 2;
    const damping = 2 * shuffleDamping * Math.sqrt(stiffness * inertia);
    const shaft = driver.declutched
      ? -this.rollingDrag()
      : stiffness * this.twist + damping * (this.engineSpeed - this.drumSpeed);
    const { profile } = machine;
    const { aNm, bNmPerRadS, cNmPerRadS2 } = profile.parasitic;
    // A profile's losses are those of one drum.
    const loss = this.driven.length * (aNm + bNmPerRadS * this.drumSpeed + cNmPerRadS2 * this.drumSpeed ** 2);
    this.absorber?.step(stepS, this.drumSpeed, this.control());
    const brake = driver.braking ? brakeNmPerKgM2 * this.turningKgM2 : 0;
    const braking = loss + (this.absorber?.torqueNm ?? 0) + brake;
    // The wheels turn with the drum: they take their share of torque before the drum sees any.
    const wheels = car.wheelInertiaKgM2 * machine.ratioFactor ** 2;
    this.drumSpeed = Math.max(0.5, this.drumSpeed + ((shaft - braking) / (this.turningKgM2 + wheels)) * stepS);
    if (driver.declutched) {
      this.engineSpeed = this.drumSpeed;
      this.twist = 0;
      return;
    }
    this.engineSpeed += ((atDrum - shaft) / inertia) * stepS;
    this.twist += (this.engineSpeed - this.drumSpeed) * stepS;
  }

  /** What tyres and gearbox take out of gear, at the drum, N·m. */
  private rollingDrag(): number {
    return this.machine.profile.kind === 'hub' ? 6 : rollingNm + rollingNmPerRadS * this.drumSpeed;
  }

  private control(): LoadControl {
    const { driver } = this;
    if (driver.declutched) return { mode: 'torque', torqueNm: 0 };
    const { heldRpm } = driver;
    if (heldRpm !== undefined) return { mode: 'hold', radPerS: this.radS(heldRpm) / this.ratio };
    if (!driver.pulling && !driver.keeping) return { mode: 'free' };
    if (this.load.loadNm !== undefined) return { mode: 'torque', torqueNm: this.load.loadNm };
    const rampRpmPerS = this.load.rampRpmPerS ?? this.machine.rampRpmPerS;
    if (rampRpmPerS === undefined) return { mode: 'free' };
    return { mode: 'ramp', radPerS2: this.radS(rampRpmPerS) / this.ratio };
  }

  private newLuck(): void {
    this.faults.begin();
    this.luck = { scale: 1 + this.chance.normal(0.0022), tilt: this.chance.normal(0.003) };
  }

  private radS(rpm: number): number {
    return (rpm * 2 * Math.PI) / 60;
  }
}
