import { burnsFuel, sparks, type EngineKind } from '../engine/engine-kind.ts';
import type { DynoKind } from '../dyno/dyno-profile.ts';

/** One thing to look at before a run, or to put back after the last, or to look at before it is handed over. */
export interface InspectionItem {
  key: string;
  part: InspectionPart;
  text: string;
  /** What is measured, where something is: its unit and what is right. */
  measured?: { unit: string; low?: number; high?: number };
}

export const inspectionParts = ['car', 'mounting', 'put back', 'hand-over'] as const;
export type InspectionPart = (typeof inspectionParts)[number];

/** What decides which items belong on a job's list. */
export interface InspectionFacts {
  dyno: DynoKind | null;
  /** What drives it; null where nobody said. */
  ignition: EngineKind | null;
  boosted: boolean;
  /** Methanol or much ethanol in the tank. */
  alcohol: boolean;
}

const roller = ({ dyno }: InspectionFacts) => dyno !== 'hub';
const hub = ({ dyno }: InspectionFacts) => dyno === 'hub';
const burns = ({ ignition }: InspectionFacts) => burnsFuel(ignition);
const electric = ({ ignition }: InspectionFacts) => ignition === 'electric';
const spark = ({ ignition }: InspectionFacts) => sparks(ignition);
const charged = ({ boosted, ignition }: InspectionFacts) => boosted && burnsFuel(ignition);

const items: readonly (InspectionItem & { when?: (facts: InspectionFacts) => boolean })[] = [
  { key: 'oil', part: 'car', text: 'Oil level right, no leaks', when: burns },
  { key: 'coolant', part: 'car', text: 'Coolant level right, no leaks' },
  { key: 'fuel-leaks', part: 'car', text: 'Fuel lines dry, cap closed', when: burns },
  { key: 'belts', part: 'car', text: 'Belts whole and tight', when: burns },
  { key: 'intake', part: 'car', text: 'Intake filter clean, hoses tight', when: burns },
  {
    key: 'boost-hoses',
    part: 'car',
    text: 'Boost and sensor hoses tight',
    when: charged,
  },
  {
    key: 'plugs',
    part: 'car',
    text: 'Plugs right for the job, gap checked',
    measured: { unit: 'mm', low: 0.4, high: 1.2 },
    when: spark,
  },
  {
    key: 'air-shut-off',
    part: 'car',
    text: 'How to shut the air is known, should the engine run away',
    when: ({ ignition }) => ignition === 'compression',
  },
  { key: 'battery', part: 'car', text: 'Battery on a charger', measured: { unit: 'V', low: 12.4, high: 14.8 } },
  {
    key: 'state-of-charge',
    part: 'car',
    text: 'State of charge noted: power falls with it, and with a cold or hot battery',
    measured: { unit: '%' },
    when: electric,
  },
  {
    key: 'high-voltage',
    part: 'car',
    text: 'Orange cables and covers whole and dry; how to cut the drive off is known, as its maker says',
    when: electric,
  },
  { key: 'wideband', part: 'car', text: 'λ probe warmed up and plausible', when: burns },
  { key: 'codes', part: 'car', text: 'No fault codes that matter; licences and keys in date' },
  { key: 'tyres', part: 'car', text: 'Driven tyres whole, free of debris, rated for the speed', when: roller },
  {
    key: 'tyre-pressure',
    part: 'car',
    text: 'Driven tyre pressure set, cold',
    measured: { unit: 'kPa', low: 160, high: 350 },
    when: roller,
  },
  {
    key: 'alcohol-care',
    part: 'car',
    text: 'Chemical-resistant gloves and eye protection at hand: the flame of alcohol is hard to see, methanol poisons through the skin',
    when: (facts) => facts.alcohol && burns(facts),
  },
  { key: 'straps', part: 'mounting', text: 'Straps tight, to sound points, pulling straight', when: roller },
  { key: 'hub-bolts', part: 'mounting', text: 'Hub bolts at the torque their maker names', when: hub },
  { key: 'free-wheels', part: 'mounting', text: 'Car supported and the free axle secured', when: hub },
  { key: 'fans', part: 'mounting', text: 'Fans at the heat exchangers' },
  { key: 'extraction', part: 'mounting', text: 'Extraction on, carbon-monoxide alarm working', when: burns },
  { key: 'extinguisher', part: 'mounting', text: 'Extinguisher at hand, signal to stop agreed' },
  { key: 'aids', part: 'mounting', text: 'Traction and anti-lock aids off as the maker’s procedure says' },
  { key: 'gear', part: 'mounting', text: 'Gear chosen, nearest 1:1, no kick-down' },
  { key: 'ratio', part: 'mounting', text: 'Engine-speed pickup reads true, ratio calibrated' },
  { key: 'put-aids', part: 'put back', text: 'Traction and anti-lock aids on again' },
  { key: 'put-limiter', part: 'put back', text: 'Rev limiter where it belongs', when: burns },
  {
    key: 'put-boost-cut',
    part: 'put back',
    text: 'Boost cut active again',
    when: charged,
  },
  { key: 'put-filter', part: 'put back', text: 'Intake filter and bonnet back', when: burns },
  { key: 'put-probe', part: 'put back', text: 'Probes and loggers taken out, plugs back in', when: burns },
  { key: 'put-loggers', part: 'put back', text: 'Loggers and clamps taken out, covers back on', when: electric },
  { key: 'put-bonnet', part: 'put back', text: 'Bonnet and undertray back', when: electric },
  { key: 'put-tyres', part: 'put back', text: 'Tyre pressures back to the road’s, wheel bolts at their torque' },
  { key: 'road-check', part: 'hand-over', text: 'Driven on the road after the last change, nothing found' },
];

/** The list for a dyno, an engine and its fuel; what is not known leaves an item on. */
export function inspectionList(facts: InspectionFacts): InspectionItem[] {
  return items
    .filter(({ when }) => !when || when(facts))
    .map(({ key, part, text, measured }) => ({ key, part, text, ...(measured ? { measured } : {}) }));
}

/** Whether a measured value is right; undefined where nothing says so. */
export function withinTolerance(value: number, { low, high }: NonNullable<InspectionItem['measured']>): boolean {
  return value >= (low ?? -Infinity) && value <= (high ?? Infinity);
}
