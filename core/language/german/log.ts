import type { Phrases } from '../phrase-book.ts';

/** What is found in an engine's log. */
export const germanLog: Phrases = {
  '{0} end at {1} rpm, before the pull does: nothing is known of them beyond that, and no limit of them is watched there.':
    '{0} enden bei {1} rpm, vor dem Zug: darüber ist von ihnen nichts bekannt, und keine ihrer Grenzen wird dort überwacht.',
  '{0} ends at {1} rpm, before the pull does: nothing is known of it beyond that, and no limit of it is watched there.':
    '{0} endet bei {1} rpm, vor dem Zug: darüber ist davon nichts bekannt, und keine seiner Grenzen wird dort überwacht.',
  '{0} {1} {2}{3}: {4}.': '{0} {1} {2}{3}: {4}.',
  'the usual limit, not set in this job, is {0}': 'die übliche Grenze, in diesem Auftrag nicht gesetzt, ist {0}',
  'the limit is {0}': 'die Grenze ist {0}',
  'Oil pressure is down to {0} from {1} to {2} rpm ({3}). Do not run again before level, pump and sensor are checked.':
    'Der Öldruck fällt von {1} bis {2} rpm auf {0} ({3}). Nicht erneut fahren, bevor Stand, Pumpe und Sensor geprüft sind.',
  'Boost overshoots {0} by {1} at {2} rpm.': 'Der Ladedruck schießt bei {2} rpm um {1} über {0} hinaus.',
  'its target': 'seinen Sollwert',
  'its plateau': 'sein Plateau',
  'Boost tapers by {0} below its target from {1} rpm to the top: the turbo or its control has reached its end.':
    'Der Ladedruck sinkt von {1} rpm bis oben um {0} unter seinen Sollwert: der Lader oder seine Regelung ist am Ende.',
  'Boost tapers by {0} from {1} rpm to the top. Its target was not logged: whether the controller wanted that, or the turbo has reached its end, cannot be told.':
    'Der Ladedruck sinkt von {1} rpm bis oben um {0}. Sein Sollwert wurde nicht aufgezeichnet: ob das Steuergerät es so wollte oder der Lader am Ende ist, lässt sich nicht sagen.',
  'Boost is cut at {0} rpm: {1} gone in {2} s. The controller took it away, or a hose came off.':
    'Der Ladedruck bricht bei {0} rpm weg: {1} in {2} s. Das Steuergerät nahm ihn weg, oder ein Schlauch ist ab.',
  'Injectors are open up to {0#} % of the time from {1#} rpm on ({2}): no room is left to enrich.':
    'Die Einspritzdüsen sind ab {1} rpm bis zu {0} % der Zeit offen ({2}): zum Anfetten bleibt kein Raum.',
  'The sensor reads {0#} % ethanol, the fuel ledger says {1#} %: measure a sample, and put the ledger or the sensor right before fuelling is judged.':
    'Der Sensor liest {0} % Ethanol, das Kraftstoffbuch sagt {1} %: eine Probe messen und Buch oder Sensor richtigstellen, bevor über das Gemisch geurteilt wird.',
  'The controller’s learned octane moves from {0#} to {1#} % within the pull: {2}. Make conditioning runs until it rests.':
    'Die gelernte Oktanzahl des Steuergeräts geht im Zug von {0} auf {1} %: {2}. Läufe zum Einfahren machen, bis sie ruht.',
  'it hears knock and trusts the fuel less': 'es hört Klopfen und traut dem Kraftstoff weniger',
  'it trusts the fuel more': 'es traut dem Kraftstoff mehr',
  'The controller trims fuel by up to {0#} % from {1#} to {2#} rpm ({3}): put the table, fuel pressure or the air reading right first.':
    'Das Steuergerät korrigiert den Kraftstoff von {1} bis {2} rpm um bis zu {0} % ({3}): zuerst Kennfeld, Kraftstoffdruck oder Luftmessung richtigstellen.',
  'Fuel pressure sags by {0}{1} from {2} rpm on: pump, filter or line do not keep up. Do not add fuel or boost before that is mended.':
    'Der Kraftstoffdruck sackt ab {2} rpm um {0}{1} ab: Pumpe, Filter oder Leitung kommen nicht mit. Weder Kraftstoff noch Ladedruck zugeben, bevor das behoben ist.',
  ' against the manifold': ' gegen das Saugrohr',
  ' below its target': ' unter seinen Sollwert',
  'Knock: up to {0#}° taken back from {1#} to {2#} rpm. Take advance or boost out before the next run.':
    'Klopfen: bis zu {0}° zurückgenommen von {1} bis {2} rpm. Vor dem nächsten Lauf Vorzündung oder Ladedruck zurücknehmen.',
  'Light knock: up to {0#}° taken back from {1#} to {2#} rpm. Do not go further here.':
    'Leichtes Klopfen: bis zu {0}° zurückgenommen von {1} bis {2} rpm. Hier nicht weitergehen.',
  '{0} stays at {1} for {2} s: the sensor has reached its ceiling, and what is above it is not seen.':
    '{0} bleibt {2} s lang bei {1}: der Sensor ist an seinem Ende, und was darüber liegt, sieht er nicht.',
  '{0} gave no reading in the whole pull.': '{0} gab im ganzen Zug keinen Wert.',
  '{0} reads {1} through the whole pull: the sensor is dead, clogged or not connected.':
    '{0} zeigt im ganzen Zug {1}: der Sensor ist tot, verstopft oder nicht angeschlossen.',
  'The battery reads {0#} V in the pull: charge it, or look at the generator, before ignition and injectors are judged.':
    'Die Batterie zeigt im Zug {0} V: laden oder den Generator ansehen, bevor über Zündung und Einspritzung geurteilt wird.',
  'The long fuel trim moves by {0#} % within the pull: the controller is still relearning. Make conditioning runs until it rests.':
    'Die lange Kraftstoffkorrektur bewegt sich im Zug um {0} %: das Steuergerät lernt noch. Läufe zum Einfahren machen, bis sie ruht.',
  'Rail pressure lies up to {0} below {1} from {2} rpm on: the high-pressure pump, or what feeds it, does not keep up. Look at the low-pressure side first; add no fuel before.':
    'Der Raildruck liegt ab {2} rpm bis zu {0} unter {1}: die Hochdruckpumpe, oder was sie speist, kommt nicht mit. Zuerst die Niederdruckseite ansehen; vorher keinen Kraftstoff zugeben.',
  'the {0} that it had reached': 'den {0}, die er erreicht hatte',
  'Lean: {0} from {1} to {2} rpm, {3}. Look at fuel pressure and injector duty before the next run.':
    'Mager: {0} von {1} bis {2} rpm, {3}. Vor dem nächsten Lauf Kraftstoffdruck und Einspritzdauer ansehen.',
  'Rich: {0} from {1} to {2} rpm. It costs power, and washes the bores in the long run.':
    'Fett: {0} von {1} bis {2} rpm. Es kostet Leistung und wäscht auf Dauer die Zylinder.',
  'limit {0#} %': 'Grenze {0} %',
  'limit {0#}': 'Grenze {0}',
};
