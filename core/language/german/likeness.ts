import type { Phrases } from '../phrase-book.ts';

/** What is not like for like, and what of a job is missing. */
export const germanLikeness: Phrases = {
  '{0} covers only {1} to {2} rpm: with it the runs share {3} to {4} rpm, without it {5} to {6} rpm.':
    '{0} reicht nur von {1} bis {2} rpm: mit ihm haben die Läufe {3} bis {4} rpm gemeinsam, ohne ihn {5} bis {6} rpm.',
  '{0} covers only {1} to {2} rpm: with it the runs share no range at all, without it {3} to {4} rpm.':
    '{0} reicht nur von {1} bis {2} rpm: mit ihm haben die Läufe keinen Bereich gemeinsam, ohne ihn {3} bis {4} rpm.',
  'The runs come from different kinds of dyno: {0}.': 'Die Läufe kommen von verschiedenen Arten von Prüfständen: {0}.',
  'The runs come from different dynos, {0} and {1}; their difference is not the change alone.':
    'Die Läufe kommen von verschiedenen Prüfständen, {0} und {1}; ihr Unterschied ist nicht allein die Änderung.',
  'The runs come from different dynos or dyno settings; their difference is not the change alone.':
    'Die Läufe kommen von verschiedenen Prüfständen oder Einstellungen; ihr Unterschied ist nicht die Änderung allein.',
  'The runs were made in different gears: {0}.': 'Die Läufe wurden in verschiedenen Gängen gemacht: {0}.',
  'The runs were made with different tyres: {0}.': 'Die Läufe wurden mit verschiedenen Reifen gemacht: {0}.',
  'The runs were made with different fuels: {0}.': 'Die Läufe wurden mit verschiedenem Kraftstoff gemacht: {0}.',
  'The runs were made with different fan settings: {0}.':
    'Die Läufe wurden mit verschieden eingestellten Gebläsen gemacht: {0}.',
  'The runs were made with different bonnet positions: {0}.':
    'Die Läufe wurden mit verschieden weit offener Haube gemacht: {0}.',
  'The runs were made with different load modes: {0}.':
    'Die Läufe wurden mit verschiedenen Arten der Last gemacht: {0}.',
  'The ratio of engine to drum speed differs by {0#} % between the runs: another gear, other tyres, or slip.':
    'Das Verhältnis von Motor- zu Rollendrehzahl unterscheidet sich zwischen den Läufen um {0} %: ein anderer Gang, andere Reifen oder Schlupf.',
  'Tyre pressures differ by {0} between the runs.': 'Die Reifendrücke der Läufe liegen um {0} auseinander.',
  'The engine was swept {0#} % faster ({1#} against {2#} rpm/s).':
    'Der Motor wurde um {0} % schneller hochgezogen ({1} gegen {2} rpm/s).',
  'The engine was swept {0#} % slower ({1#} against {2#} rpm/s).':
    'Der Motor wurde um {0} % langsamer hochgezogen ({1} gegen {2} rpm/s).',
  'The tyres slip by up to {0#} % from {1#} to {2#} rpm in {3}.':
    'Die Reifen rutschen um bis zu {0} % von {1} bis {2} rpm in {3}.',
  'No air was recorded with {0}; corrected and uncorrected runs cannot be compared.':
    'Mit {0} wurde keine Luft aufgezeichnet; korrigierte und unkorrigierte Läufe lassen sich nicht vergleichen.',
  'The air of {0} was read more than an hour before the run.':
    'Die Luft von {0} wurde mehr als eine Stunde vor dem Lauf gelesen.',
  'The figures follow different standards: {0}.': 'Die Zahlen folgen verschiedenen Normen: {0}.',
  'The fuel of {0,} was not logged: corrected by an assumed engine factor, the others by their fuel.':
    'Der Kraftstoff von {0} wurde nicht aufgezeichnet: mit einem angenommenen Motorfaktor korrigiert, die anderen nach ihrem Kraftstoff.',
  'the two lie up to 5 % apart on a hot day': 'beide liegen an einem heißen Tag bis zu 5 % auseinander',
  'Log fuel flow and boost with all of them, or compare under another standard.':
    'Kraftstoffmenge und Ladedruck bei allen aufzeichnen oder nach einer anderen Norm vergleichen.',
  'The figures apply different shares of the correction: {0}.':
    'Die Zahlen wenden verschiedene Anteile der Korrektur an: {0}.',
  '{0} started up to {1} {2} than any of the runs it is held against.':
    '{0} begann bis zu {1} {2} als jeder der Läufe, an denen gemessen wird.',
  hotter: 'wärmer',
  colder: 'kälter',
  'The fuel ledger had {0#} % ethanol for one side and {1#} % for the other.':
    'Das Kraftstoffbuch hatte {0} % Ethanol für die eine Seite und {1} % für die andere.',
  'The fuel’s ethanol content changed by {0#} % within a setup: fuel was added without a new one.':
    'Der Ethanolgehalt des Kraftstoffs änderte sich innerhalb eines Setups um {0} %: es wurde nachgetankt, ohne ein neues zu beginnen.',
  'The ethanol reading had not settled when {0} began: lines and pump still held the old fuel.':
    'Die Anzeige des Ethanols hatte sich noch nicht gesetzt, als {0} begann: Leitungen und Pumpe hielten noch den alten Kraftstoff.',
  'The controller’s learned octane was between {0#} and {1#} % in these runs: it had not settled.':
    'Die gelernte Oktanzahl des Steuergeräts lag in diesen Läufen zwischen {0} und {1} %: sie hatte sich nicht gesetzt.',
  'The runs are of different vehicles: {0,}.': 'Die Läufe sind von verschiedenen Fahrzeugen: {0}.',
  'What it is compared with comes from elsewhere: {0}.': 'Das, womit verglichen wird, kommt von anderswo: {0}.',
  'The runs cover different ranges: {0#} to {1#} rpm against {2#} to {3#} rpm.':
    'Die Läufe decken verschiedene Bereiche ab: {0} bis {1} rpm gegen {2} bis {3} rpm.',
  'What it is held against is one run, {0}: nothing tells how far it would read another time.':
    'Das, woran es gemessen wird, ist ein einziger Lauf, {0}: nichts sagt, wie weit er ein andermal anders läse.',
  'The car was strapped anew between the runs; the spread from mounting to mounting, as this dyno has shown it, is counted in.':
    'Das Fahrzeug wurde zwischen den Läufen neu verzurrt; die Streuung von Aufspannung zu Aufspannung, wie dieser Prüfstand sie gezeigt hat, ist eingerechnet.',
  'The car was strapped anew between the runs; spread from strapping the car anew is not known, so no verdict is given.':
    'Das Fahrzeug wurde zwischen den Läufen neu verzurrt; die Streuung davon ist nicht bekannt, also wird nicht geurteilt.',
  'The runs were made in different bays, strapped anew; the spread from mounting to mounting, as this dyno has shown it, is counted in.':
    'Die Läufe wurden auf verschiedenen Plätzen gemacht, neu verzurrt; die Streuung von Aufspannung zu Aufspannung, wie dieser Prüfstand sie gezeigt hat, ist eingerechnet.',
  'The runs were made in different bays, strapped anew; spread from strapping the car anew is not known, so no verdict is given.':
    'Die Läufe wurden auf verschiedenen Plätzen gemacht, neu verzurrt; die Streuung vom neuen Verzurren ist nicht bekannt, also wird nicht geurteilt.',
  'The runs are more than 12 hours apart; the spread from mounting to mounting, as this dyno has shown it, is counted in.':
    'Die Läufe liegen mehr als 12 Stunden auseinander; die Streuung von Aufspannung zu Aufspannung, wie dieser Prüfstand sie gezeigt hat, ist eingerechnet.',
  'The runs are more than 12 hours apart; spread from strapping the car anew is not known, so no verdict is given.':
    'Die Läufe liegen mehr als 12 Stunden auseinander; die Streuung vom neuen Verzurren ist nicht bekannt, also wird nicht geurteilt.',
  'One step changes {0#} things ({1}): what each of them gave cannot be split.':
    'Ein Schritt ändert {0} Dinge ({1}): was jedes von ihnen brachte, lässt sich nicht trennen.',
  'The setups differ in {0#} steps ({1}): the gain belongs to them together.':
    'Die Setups unterscheiden sich in {0} Schritten ({1}): der Gewinn gehört ihnen gemeinsam.',
  'The runs drift from one to the next, and the baseline was not repeated after the change: drift and change cannot be told apart.':
    'Die Läufe driften vom einen zum nächsten, und die Ausgangsmessung wurde nach der Änderung nicht wiederholt: Drift und Änderung lassen sich nicht trennen.',
  'The baseline was not repeated after the change: a steady drift would look the same as a gain.':
    'Die Ausgangsmessung wurde nach der Änderung nicht wiederholt: eine stetige Drift sähe ebenso aus wie ein Gewinn.',
  'From crank to rollers {0#} to {1#} % are taken to be lost: a usual range, not measured on this car. Rating and claim are for orientation and never a baseline.':
    'Von der Kurbelwelle bis zu den Rollen gelten {0} bis {1} % als verloren: ein üblicher Bereich, an diesem Fahrzeug nicht gemessen. Werksangabe und Behauptung dienen der Orientierung und sind nie eine Ausgangsmessung.',
  'From crank to hubs {0#} to {1#} % are taken to be lost: a usual range, not measured on this car. Rating and claim are for orientation and never a baseline.':
    'Von der Kurbelwelle bis zu den Naben gelten {0} bis {1} % als verloren: ein üblicher Bereich, an diesem Fahrzeug nicht gemessen. Werksangabe und Behauptung dienen der Orientierung und sind nie eine Ausgangsmessung.',
  // Put back, as the inspection words it.
  'Traction and anti-lock aids on again': 'Traktions- und Blockierhilfen wieder an',
  'Boost cut active again': 'Ladedruckabschaltung wieder wirksam',
  'Rev limiter where it belongs': 'Drehzahlbegrenzer, wo er hingehört',
  'Intake filter and bonnet back': 'Ansaugfilter und Haube zurück',
  'Probes and loggers taken out, plugs back in': 'Sonden und Logger ausgebaut, Stopfen wieder drin',
  'Tyre pressures back to the road’s, wheel bolts at their torque':
    'Reifendrücke wieder wie auf der Straße, Radschrauben mit ihrem Drehmoment',
};
