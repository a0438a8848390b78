import type { NamedItem, SetupItem } from './item.ts';

const number = String.raw`([+−–-]?\s*\d+(?:[.,]\d+)?)`;
const words = (pattern: string) => new RegExp(`^(?:${pattern})$`, 'i');

/** Reads one clause; undefined when it is not one of its kind. */
type Reader = (clause: string) => SetupItem | undefined;

const kPaPer: Record<string, number> = { bar: 100, psi: 6.894757, kpa: 1, '': 1 };

/** By so much where a sign or a word of direction stands, else to the value. */
function byOrTo(text = '', factor = 1, direction = 0): { by: number } | { to: number } {
  const value = Number(text.replace(/\s/g, '').replace(/[−–]/, '-').replace(',', '.'));
  const scaled = Math.round(value * factor * 1e6) / 1e6;
  if (direction !== 0) return { by: direction * Math.abs(scaled) };
  return /^\s*[+−–-]/.test(text) ? { by: scaled } : { to: scaled };
}

const engineSpeed = (text: string | undefined) => (text ? { aboveRpm: Number(text.replace(/\D/g, '')) } : {});
const above = String.raw`(?:\s*(?:above|from|over)\s*(\d[\d,. ]*)(?:\s*rpm)?)?`;

function numeric(pattern: string, read: (found: RegExpExecArray) => SetupItem): Reader {
  const expression = words(pattern);
  return (clause) => {
    const found = expression.exec(clause);
    return found ? read(found) : undefined;
  };
}

function named(kind: NamedItem['kind'], pattern: string): Reader {
  const expression = words(pattern);
  return (clause) => {
    const name = expression.exec(clause)?.slice(1).find(Boolean)?.trim();
    return name ? { kind, name } : undefined;
  };
}

const later = /later|retard|shorter|less|down/i;
const direction = (word: string | undefined) => (word ? (later.test(word) ? -1 : 1) : 0);
const degrees = String.raw`\s*(?:°|deg|degrees?)?`;

/** More than one of something, as one: `spacers` and `spacer` are the same thing. */
const singular = (name: string) =>
  name
    .trim()
    .toLowerCase()
    .replace(/([^s])s$/, '$1');
const unitPattern = String.raw`(°|%|mm³|mm|cm|kPa|bar|psi|N/mm|kg|g|[a-zµΩ]{1,9}(?:/[a-z]+)?)`;
/** Things that have a reader of their own, by name and not by number. */
const namedThings = /^(fuel|tyres?|gear|fans?|bonnet|tune|tune file|map|file|filter|air filter)$/;
const own = (name: string, unit: string | undefined, step: { by: number } | { to: number }): SetupItem | undefined =>
  namedThings.test(singular(name))
    ? undefined
    : {
        kind: 'own',
        name: singular(name),
        unit: (unit ?? '').replace(/^(click|turn|step|notche?|hole)s$/i, '$1'),
        ...step,
      };

/** A thing that a person names, by so much: `pump timing +2°`, `fuel stop +2 clicks`, `1 spacer less`. */
const ownSteps: Reader[] = [
  (clause) => {
    const found = words(String.raw`([a-z][a-z .-]{1,40}?)\s*([+−–-]\s*\d+(?:[.,]\d+)?)\s*${unitPattern}?`).exec(clause);
    return found ? own(found[1]!, found[3], byOrTo(found[2])) : undefined;
  },
  (clause) => {
    const found = words(
      String.raw`([a-z][a-z .-]{1,40}?)\s*(\d+(?:[.,]\d+)?)\s*${unitPattern}?\s*(more|less|fewer|up|down|in|out)`,
    ).exec(clause);
    return found
      ? own(found[1]!, found[3], byOrTo(found[2], 1, /less|fewer|down|out/i.test(found[4]!) ? -1 : 1))
      : undefined;
  },
  (clause) => {
    const found = words(String.raw`(\d+(?:[.,]\d+)?)\s+([a-z][a-z -]{1,40}?)\s+(more|less|fewer)`).exec(clause);
    return found ? own(found[2]!, '', byOrTo(found[1], 1, /less|fewer/i.test(found[3]!) ? -1 : 1)) : undefined;
  },
];

/** A thing that a person names, to a value: `main jet 125`, `pulley to 78 mm`. */
const ownValue: Reader = (clause) => {
  const found = words(String.raw`([a-z][a-z .-]{1,40}?)\s+(?:to\s+)?(\d+(?:[.,]\d+)?)\s*${unitPattern}?`).exec(clause);
  return found ? own(found[1]!, found[3], byOrTo(found[2])) : undefined;
};

/** In the order in which they are tried: the special before the general. */
const readers: Reader[] = [
  numeric(
    String.raw`(?:ignition|spark|timing)\s*(?:advance)?\s*${number}${degrees}\s*(more|less|earlier|later|advance|retard)?${above}`,
    ([, value, word, rpm]) => ({ kind: 'ignition', ...byOrTo(value, 1, direction(word)), ...engineSpeed(rpm) }),
  ),
  numeric(
    String.raw`boost\s*(?:to\s*)?${number}\s*(bar|kpa|psi)\s*(more|less|up|down)?${above}`,
    ([, value, unit, word, rpm]) => ({
      kind: 'boost',
      ...byOrTo(value, kPaPer[(unit ?? '').toLowerCase()], direction(word)),
      ...engineSpeed(rpm),
    }),
  ),
  numeric(String.raw`(?:λ|lambda)\s*(?:target)?\s*(?:to\s*)?${number}${above}`, ([, value, rpm]) => ({
    kind: 'lambda-target',
    ...byOrTo(value),
    ...engineSpeed(rpm),
  })),
  numeric(
    String.raw`(intake|inlet|exhaust)?\s*cam(?:shaft)?\s*(?:timing)?\s*(?:to\s*)?${number}${degrees}\s*(earlier|later|advance|retard)?${above}`,
    ([, which, value, word, rpm]) => ({
      kind: which?.toLowerCase() === 'exhaust' ? 'exhaust-cam' : 'intake-cam',
      ...byOrTo(value, 1, direction(word)),
      ...engineSpeed(rpm),
    }),
  ),
  numeric(
    String.raw`(?:injection end|end of injection)\s*(?:to\s*)?${number}${degrees}\s*(earlier|later)?`,
    ([, value, word]) => ({ kind: 'injection-end', ...byOrTo(value, 1, direction(word)) }),
  ),
  numeric(
    String.raw`(?:intake|trumpets?|runners?)(?:\s+(?:intake|trumpets?|runners?|length))*\s*${number}\s*mm\s*(shorter|longer)?`,
    ([, value, word]) => ({ kind: 'intake-length', ...byOrTo(value, 1, direction(word)) }),
  ),
  numeric(
    String.raw`tyres?(?:\s*pressures?)?\s*(?:to\s*)?${number}\s*(bar|kpa|psi)\s*(more|less)?`,
    ([, value, unit, word]) => ({
      kind: 'tyre-pressure',
      ...byOrTo(value, kPaPer[(unit ?? '').toLowerCase()], direction(word)),
    }),
  ),
  numeric(String.raw`plug gaps?\s*(?:to\s*)?${number}\s*mm`, ([, value]) => ({ kind: 'plug-gap', ...byOrTo(value) })),
  ...ownSteps,
  named('tune-file', String.raw`(?:tune file|tune|map|file)\s+(?:to\s+)?(.+)`),
  named('tune-file', String.raw`(\S+\.(?:bin|hex|ori|mod|s19|tun))`),
  named('fuel-table', String.raw`(?:fuel|ve)\s+table\s+(?:to\s+)?(.+)`),
  named('fuel', String.raw`fuel\s+(?:to\s+)?(.+)|(e\d{1,3})(?:\s+in the tank)?|(\d{2,3}\s*octane(?:\s+fuel)?)`),
  named('gear', String.raw`gear\s+(.+)|in\s+(\d(?:st|nd|rd|th))|(\d(?:st|nd|rd|th))\s+gear`),
  named('fan', String.raw`fans?\s+(.+)`),
  named('bonnet', String.raw`bonnet\s+(.+)`),
  named('air-conditioning', String.raw`(?:air conditioning|air con|aircon)\s+(.+)`),
  named(
    'charge-cooling',
    String.raw`(?:charge cool(?:er|ing)|intercooler)\s+(.+)|(ice|water spray) on (?:the )?(?:charge cooler|intercooler)`,
  ),
  named(
    'filter',
    String.raw`(?:air |intake )?filter\s+(.+)|(paper|cotton|foam|no|new|clean)\s+(?:air |intake )?filter`,
  ),
  named('tyres', String.raw`tyres?\s+(?:to\s+)?(.+)`),
  named('part-removed', String.raw`(.+?)\s+(?:removed|taken off|off)|(?:removed|took off)\s+(.+)`),
  named('part-fitted', String.raw`(.+?)\s+(?:fitted|installed)|(?:fitted|installed)\s+(.+)`),
  ownValue,
];

/** Things in one line stand apart by commas (not those in 4,000), semicolons, `and` or `+` before a word. */
const between = /;\s*|,\s+|\s+and\s+|\s+\+\s+(?=[a-zλ])/i;

/**
 * Reads the items out of a change written in a line, such as
 * `ignition +1.5° above 4,000` or `boost +0.1 bar, plug gap 0.7 mm`.
 * What is not understood stays an item of words, so that each thing counts.
 * @returns the items in the order of the line; empty for an empty line
 */
export function readChange(line: string): SetupItem[] {
  return line
    .split(between)
    .map((clause) => clause.trim().replace(/[.]$/, ''))
    .filter(Boolean)
    .map((clause) => {
      for (const read of readers) {
        const item = read(clause);
        if (item) return item;
      }
      return { kind: 'words', name: clause };
    });
}
