import type { Phrases } from '../phrase-book.ts';

/** What the owner wanted a setup to make, and what it made of it. */
export const germanTargets: Phrases = {
  'Target figures': 'Zielwerte',
  target: 'Ziel',
  wanted: 'gewünscht',
  stands: 'Stand',
  'peak power': 'Spitzenleistung',
  'peak torque': 'höchstes Drehmoment',
  'peak boost': 'höchster Ladedruck',
  'mean power': 'mittlere Leistung',
  'mean torque': 'mittleres Drehmoment',
  'power at': 'Leistung bei',
  'torque at': 'Drehmoment bei',
  'boost at': 'Ladedruck bei',
  '{0} from {1} rpm on': '{0} ab {1} rpm',
  '{0} up to {1} rpm': '{0} bis {1} rpm',
  '{0} from {1} to {2} rpm': '{0} von {1} bis {2} rpm',
  '{0} at the wheels': '{0} am Rad',
  '{0} at the crank': '{0} an der Kurbelwelle',
  reached: 'erreicht',
  '{0} short': '{0} zu wenig',
  '{0} short, within its interval': '{0} zu wenig, innerhalb des Intervalls',
  'not told yet: within its interval': 'noch nicht entschieden: innerhalb des Intervalls',
  'one run: not told yet': 'ein Lauf: noch nicht entschieden',
  'not driven there, or not recorded': 'dort nicht gefahren oder nicht aufgezeichnet',
  'its standard asks for the air, and no run has any': 'ihre Norm verlangt die Luft, und kein Lauf hat eine',
  'of another scale than what is shown': 'auf einer anderen Skala als gezeigt',
  '{0}: would read {1} here, by the usual losses': '{0}: läse sich hier als {1}, nach den üblichen Verlusten',
  'A target of the crank is held against what it would read here; ± is a 95 % interval, and reached is what lies wholly above.':
    'Ein Ziel an der Kurbelwelle wird an dem gemessen, was es hier anzeigen würde; ± ist ein 95-%-Intervall, und erreicht ist, was ganz darüber liegt.',
};
