import type { Phrases } from '../phrase-book.ts';

/** Runs that are no power runs: their figures, what is found in them, what may be claimed. */
export const germanOtherTests: Phrases = {
  '{0} reads {1} at every hold, from {2} to {3}: the sensor is dead or not connected, or the channel is another’s. Nothing is to be read from it.':
    '{0} zeigt bei jedem Halten {1}, von {2} bis {3}: der Sensor ist tot oder nicht angeschlossen, oder der Kanal gehört zu etwas anderem. Aus ihm ist nichts zu lesen.',
  'Other tests': 'Weitere Prüfungen',
  test: 'Prüfung',
  claim: 'Aussage',
  '{0} Beside them {1} more figures do not differ beyond their intervals.':
    '{0} Daneben unterscheiden sich {1} weitere Werte nicht über ihre Intervalle hinaus.',
  'At {0}: {1}.': 'Bei {0}: {1}.',
  'Each kind of test by itself; ± is a 95 % interval. Bold is what is shown, with the chance of any false claim of a kind below 5 %.':
    'Jede Art von Prüfung für sich; ± ist ein 95-%-Intervall. Fett ist, was gezeigt ist; die Wahrscheinlichkeit auch nur einer falschen Aussage je Art liegt unter 5 %.',
  '{0}: {1} {2}, no difference is shown.': '{0}: {1} {2}, ein Unterschied ist nicht gezeigt.',
  '{0}: nothing shown': '{0}: nichts gezeigt',
  'kept, and what its tests show': 'behalten, und was die Prüfungen zeigen',
  'Tried against {0}: {1}, {2}.': 'Gegen {0} versucht: {1}, {2}.',
  'steady-speed steps': 'Haltepunkte',
  idle: 'Leerlauf',
  'cold start': 'Kaltstart',
  response: 'Ansprechen',
  cruise: 'Konstantfahrt',
  'road check': 'Straßenfahrt',
  'not shown': 'nicht gezeigt',
  'less, shown': 'weniger, gezeigt',
  'more, shown': 'mehr, gezeigt',
  'less, shown: better': 'weniger, gezeigt: besser',
  'less, shown: worse': 'weniger, gezeigt: schlechter',
  'more, shown: better': 'mehr, gezeigt: besser',
  'more, shown: worse': 'mehr, gezeigt: schlechter',
  // Figures.
  '{0}: power': '{0}: Leistung',
  '{0}: torque': '{0}: Drehmoment',
  'Spread of the speed': 'Streuung der Drehzahl',
  'Hunting, amplitude': 'Sägen, Ausschlag',
  Dips: 'Einbrüche',
  'Lowest voltage': 'niedrigste Spannung',
  Cranking: 'Anlassen',
  'Undershoot below the idle': 'Unterschwingen unter den Leerlauf',
  Stalls: 'Abwürgen',
  'Steady idle after': 'ruhiger Leerlauf nach',
  'To 90 % of the torque': 'bis 90 % des Drehmoments',
  'To 90 % of the boost': 'bis 90 % des Ladedrucks',
  'Torque missing meanwhile': 'Drehmoment, das derweil fehlt',
  Fuel: 'Kraftstoff',
  'Fuel, estimate from air and λ': 'Kraftstoff, aus Luft und λ geschätzt',
  'Fuel for energy at the wheels': 'Kraftstoff je Arbeit am Rad',
  'Fuel for distance': 'Kraftstoff je Strecke',
  '{0#} to {1#} km/h, flat out': '{0} bis {1} km/h, Vollgas',
  Passages: 'Durchfahrten',
  '{0}, highest': '{0}, höchster Wert',
  '{0}, lowest': '{0}, niedrigster Wert',
  // Why nothing is claimed.
  'One run a side: how much repeats differ is not known, so nothing is claimed; ± is the noise within each run alone. Repeat it once more on either side.':
    'Ein Lauf je Seite: wie sehr Wiederholungen sich unterscheiden, ist nicht bekannt, also wird nichts behauptet; ± ist nur das Rauschen innerhalb jedes Laufs. Auf jeder Seite einmal wiederholen.',
  'One cruise a side: its own drift is in the interval, another warm-up or day is not. Go back to the first setup and drive it once more.':
    'Eine Konstantfahrt je Seite: ihre eigene Drift steckt im Intervall, ein anderes Warmfahren oder ein anderer Tag nicht. Zum ersten Setup zurückkehren und noch einmal fahren.',
  'Not equally cold: {0#} against {1#} °C at the start. Nothing is claimed; let it cool as long again.':
    'Nicht gleich kalt: {0} gegen {1} °C beim Start. Nichts wird behauptet; noch einmal gleich lange abkühlen lassen.',
  'Not at equal {0}: {1} against {2} {3}. Fuel at another {4} says nothing of a saving.':
    'Nicht bei gleicher {0}: {1} gegen {2} {3}. Kraftstoff bei anderer {4} sagt nichts über eine Ersparnis.',
  'wheel power': 'Radleistung',
  'road speed': 'Fahrgeschwindigkeit',
  // What is found.
  'The idle hunts: ±{0#} rpm every {1#} s. Look for false air, the mixture at idle and the idle controller.':
    'Der Leerlauf sägt: ±{0} rpm alle {1} s. Falschluft, Leerlaufgemisch und Leerlaufregler prüfen.',
  'The speed dips {0#} times a minute, as with a misfire: look at plugs, coils and single injectors.':
    'Die Drehzahl bricht {0}-mal je Minute ein, wie bei Aussetzern: Kerzen, Spulen und einzelne Einspritzdüsen prüfen.',
  'λ lies {0#} % above its target at idle: false air (a leak behind the air meter), or too little fuel there. A probe in the tailpipe reads lean at idle by itself.':
    'λ liegt im Leerlauf {0} % über dem Sollwert: Falschluft (ein Leck hinter dem Luftmesser) oder dort zu wenig Kraftstoff. Eine Sonde im Endrohr liest im Leerlauf von sich aus mager.',
  'The battery fell to {0#} V while cranking (usual limit {1#} V): charge and test it, and look at its cables.':
    'Die Batterie fiel beim Anlassen auf {0} V (übliche Grenze {1} V): laden, prüfen, und die Kabel ansehen.',
  'Cranking took {0#} s: look at fuel pressure at rest, the mixture for starting and the battery.':
    'Das Anlassen dauerte {0} s: Kraftstoffdruck in Ruhe, Startgemisch und Batterie prüfen.',
  'It stalled {0} after it had started.': 'Nach dem Start ging er {0} aus.',
  once: 'einmal',
  '{0#} times': '{0}-mal',
  'No steady idle was reached before the recording ended.':
    'Bis zum Ende der Aufzeichnung wurde kein ruhiger Leerlauf erreicht.',
  'Boost takes {0#} s to 90 % (usual limit {1#} s): look for leaks, the boost control and the turbo itself.':
    'Der Ladedruck braucht {0} s bis 90 % (übliche Grenze {1} s): Lecks, Ladedruckregelung und Turbolader prüfen.',
  'λ lies {0#} % below its target at this cruise: about as much more fuel than needed. Look at the fuel table there, fuel pressure and the probe.':
    'λ liegt bei dieser Konstantfahrt {0} % unter dem Sollwert: etwa so viel mehr Kraftstoff als nötig. Kraftstofftabelle dort, Kraftstoffdruck und Sonde prüfen.',
  '{0} reached {1#} {2} on the road (usual limit {3#} {4}): look where, in Logs, before the car is handed over.':
    '{0}: {1} {2} auf der Straße (übliche Grenze {3} {4}): vor der Übergabe unter Logs nachsehen, wo.',
};
