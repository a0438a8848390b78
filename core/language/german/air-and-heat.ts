import type { Phrases } from '../phrase-book.ts';

/** Air, correction, heat and limits. */
export const germanAir: Phrases = {
  'No air was recorded with this run, so its figures are uncorrected. Add the air to correct them.':
    'Mit diesem Lauf wurde keine Luft aufgezeichnet, seine Zahlen sind also unkorrigiert. Mit der Luft lassen sie sich korrigieren.',
  '{0} is used outside its validity: {1}.': '{0} wird außerhalb seines Gültigkeitsbereichs benutzt: {1}.',
  'The air was read {0} before this run; {1} since then would be 1 % of power. Read it again before the next run.':
    'Die Luft wurde {0} vor diesem Lauf gelesen; {1} seither wären 1 % der Leistung. Vor dem nächsten Lauf erneut lesen.',
  '{0} as used here is meant for spark ignition and this is a diesel: it overstates what the air takes. ISO 1585 for compression ignition suits it.':
    '{0}, wie es hier benutzt wird, ist für Ottomotoren gedacht, und dies ist ein Diesel: es übertreibt, was die Luft nimmt. ISO 1585 für Selbstzünder passt.',
  '{0} is meant for diesels and this engine has spark ignition. SAE J1349 or ISO 1585 for spark ignition suits it.':
    '{0} ist für Dieselmotoren gedacht, und dies ist ein Ottomotor. SAE J1349 oder ISO 1585 für Ottomotoren passt.',
  '{0} is {1} above what is usual at {2} m: it looks like a sea-level figure. Enter the pressure at the shop (about {3} if so).':
    '{0} liegt {1} über dem in {2} m Höhe Üblichen: es sieht nach einem auf Meereshöhe bezogenen Wert aus. Den Druck an der Werkstatt eingeben (dann etwa {3}).',
  'It started with {0} at {1}, {2} {3} than any baseline run: not like for like in heat.':
    'Er begann mit {0} bei {1}, {2} {3} als jeder Lauf der Ausgangsmessung: in der Wärme nicht vergleichbar.',
  // Limits.
  'limit {0}': 'Grenze {0}',
  'usual limit {0}, not set in this job': 'übliche Grenze {0}, in diesem Auftrag nicht gesetzt',
  'it knocked, {0} taken back{1} ({2})': 'es klopfte, {0} zurückgenommen{1} ({2})',
  '{0} {1} {2}{3} ({4})': '{0} {1} {2}{3} ({4})',
  ' at {0} rpm': ' bei {0} rpm',
  reached: 'erreichte',
  'fell to': 'fiel auf',
  reaches: 'erreicht',
  'falls to': 'fällt auf',
  torque: 'Drehmoment',
  power: 'Leistung',
  'engine speed': 'Drehzahl',
  boost: 'Ladedruck',
  'λ at full load': 'λ bei Volllast',
  'λ, richest': 'λ, am fettesten',
  'λ, smoke': 'λ, Rauch',
  'knock retard': 'Klopfrücknahme',
  'ignition advance': 'Vorzündung',
  'injector duty': 'Einspritzdauer',
  'fuel pressure': 'Kraftstoffdruck',
  'fuel trim, either way': 'Kraftstoffkorrektur, in beide Richtungen',
  'fuel trim': 'Kraftstoffkorrektur',
  'rail pressure': 'Raildruck',
  'oil pressure': 'Öldruck',
  'crankcase pressure': 'Kurbelgehäusedruck',
  battery: 'Batterie',
  'intake temperature': 'Ansaugtemperatur',
  'coolant temperature': 'Kühlmitteltemperatur',
  'oil temperature': 'Öltemperatur',
  'exhaust temperature': 'Abgastemperatur',
  coolant: 'Kühlmittel',
  oil: 'Öl',
  intake: 'Ansaugluft',
  'inertia roller': 'Schwungmassenrolle',
  'loaded roller': 'belastete Rolle',
  'hub dyno': 'Nabenprüfstand',
};
