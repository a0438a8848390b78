import type { Phrases } from '../phrase-book.ts';

/** Why nothing is claimed. */
export const germanJudgement: Phrases = {
  'not like for like, {0}': 'nicht vergleichbar, {0}',
  'another gear': 'ein anderer Gang',
  'another dyno or dyno setting': 'ein anderer Prüfstand oder andere Einstellungen',
  'another kind of dyno': 'eine andere Art von Prüfstand',
  'another gear, other tyres, or slip': 'ein anderer Gang, andere Reifen oder Schlupf',
  'another load mode': 'eine andere Art der Last',
  'another vehicle': 'ein anderes Fahrzeug',
  'another job': 'ein anderer Auftrag',
  'corrected differently': 'anders korrigiert',
  'the air of some runs is not known': 'die Luft mancher Läufe ist nicht bekannt',
  'the fuel of some runs was not logged': 'der Kraftstoff einiger Läufe wurde nicht aufgezeichnet',
  'runs more than 12 h apart': 'Läufe mehr als 12 h auseinander',
  'the tyres slip': 'die Reifen rutschen',
  'a borrowed curve, for orientation only': 'eine geliehene Kurve, nur zur Orientierung',
  'one side at the wheels, the other at the crank': 'eine Seite am Rad, die andere an der Kurbelwelle',
  'the plan is not full: {0,}': 'der Plan ist nicht erfüllt: {0}',
  '{0#} more run of {1}': '{0} weiterer Lauf von {1}',
  '{0#} more runs of {1}': '{0} weitere Läufe von {1}',
  '{0} can look the same: return to {1} for a run': '{0} kann ebenso aussehen: für einen Lauf zu {1} zurückkehren',
  'a drift from run to run': 'eine Drift von Lauf zu Lauf',
  'a drift of {0} from run to run': 'eine Drift von {0} von Lauf zu Lauf',
  'the spread of this car is only assumed: another run of {0} or {1}':
    'die Streuung dieses Fahrzeugs ist nur angenommen: noch ein Lauf von {0} oder {1}',
  'clear on its own, but may be chance among all that was looked at: another run of {0} or {1}':
    'für sich allein deutlich, kann aber Zufall sein unter allem, was angesehen wurde: noch ein Lauf von {0} oder {1}',
  'nothing can be said yet: too few runs to tell their spread, or they scatter by more than a fifth of the reading':
    'noch lässt sich nichts sagen: zu wenige Läufe, um ihre Streuung zu kennen, oder sie streuen um mehr als ein Fünftel des Messwerts',
  '{0} to {1} rpm is not covered: the runs {2}': '{0} bis {1} rpm ist nicht abgedeckt: die Läufe {2}',
  'begin at {0#} and end at {1#} rpm': 'beginnen bei {0} und enden bei {1} rpm',
  'begin at {0#} rpm': 'beginnen bei {0} rpm',
  'end at {0#} rpm': 'enden bei {0} rpm',
  'The drift from run to run is taken out: as measured the difference is {0}.':
    'Die Drift von Lauf zu Lauf ist herausgerechnet: wie gemessen ist der Unterschied {0}.',
  'The ± allows for a drift of up to {0} between the two; a run of either again, after the other, makes it smaller.':
    'Das ± lässt Raum für eine Drift von bis zu {0} zwischen beiden; ein weiterer Lauf des einen nach dem anderen macht es kleiner.',
  '{0} reads {1} less than its setup’s other runs{2}. Set it aside if that explains it.':
    '{0} zeigt {1} weniger als die anderen Läufe seines Stands{2}. Legen Sie ihn beiseite, wenn das ihn erklärt.',
  '{0} reads {1} more than its setup’s other runs{2}. Set it aside if that explains it.':
    '{0} zeigt {1} mehr als die anderen Läufe seines Stands{2}. Legen Sie ihn beiseite, wenn das ihn erklärt.',
  'not covered: {0}': 'nicht abgedeckt: {0}',
  'begins at {0#} and ends at {1#} rpm': 'beginnt bei {0} und endet bei {1} rpm',
  'begins at {0#} rpm': 'beginnt bei {0} rpm',
  'ends at {0#} rpm': 'endet bei {0} rpm',
  'Nothing is claimed from {0} to {1} rpm: {2}.': 'Von {0} bis {1} rpm wird nichts behauptet: {2}.',
};
