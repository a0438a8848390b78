import type { Phrases } from '../phrase-book.ts';

/** What is found in the motion of a run. */
export const germanChecks: Phrases = {
  'How much fuel it gets a cycle is not known (fuel flow, boost and displacement tell it): its engine factor is taken as 0.3, which corrects by {0}; with the most fuel it would be {1}.':
    'Wie viel Kraftstoff er je Arbeitsspiel bekommt, ist nicht bekannt (Kraftstoffmenge, Ladedruck und Hubraum sagen es): sein Motorfaktor ist mit 0,3 angenommen, das korrigiert um {0}; mit dem meisten Kraftstoff wäre es {1}.',
  'How much fuel it gets a cycle is not known (fuel flow, boost and displacement tell it): its engine factor is taken as 0.3, which corrects by {0}; with the most fuel it would be {1}. Whether it is turbocharged is not written: it is taken to be.':
    'Wie viel Kraftstoff er je Arbeitsspiel bekommt, ist nicht bekannt (Kraftstoffmenge, Ladedruck und Hubraum sagen es): sein Motorfaktor ist mit 0,3 angenommen, das korrigiert um {0}; mit dem meisten Kraftstoff wäre es {1}. Ob er einen Turbolader hat, ist nicht geschrieben: es wird angenommen.',
  'Whether it is turbocharged is not written: it is taken to be.':
    'Ob er einen Turbolader hat, ist nicht geschrieben: es wird angenommen.',
  '{0}: {1}': '{0}: {1}',
  'No samples for {0#} s from {1#} to {2#} rpm: the curve there rests on its neighbours.':
    'Keine Werte während {0} s von {1} bis {2} rpm: dort ruht die Kurve auf ihren Nachbarn.',
  "The instrument's clock jumped forward by {0#} s at {1#} rpm: nothing was missed, but time there is false. Repeat the run.":
    'Die Uhr des Geräts sprang bei {1} rpm um {0} s vor: nichts fehlt, aber die Zeit dort ist falsch. Den Lauf wiederholen.',
  "The instrument's clock stepped back, or samples were lost unseen, at {0#} rpm ({1#} s): the curve is broken there. Repeat the run.":
    'Die Uhr des Geräts ging zurück, oder Werte gingen unbemerkt verloren, bei {0} rpm ({1} s): dort ist die Kurve gebrochen. Den Lauf wiederholen.',
  'The recording ends at {0#} rpm before the lift; nothing is known above it.':
    'Die Aufzeichnung endet bei {0} rpm vor dem Gaswegnehmen; darüber ist nichts bekannt.',
  'The figures cover {0#} to {1#} rpm, but engine speed rose from {2#} to {3#} rpm: nothing is said of the rest, where torque was too small or unsteady to be taken as part of the pull.':
    'Die Zahlen reichen von {0} bis {1} rpm, die Drehzahl stieg aber von {2} auf {3} rpm: vom Rest ist nichts gesagt, dort war das Drehmoment zu klein oder zu unstet, um zum Zug zu zählen.',
  'Power is still climbing where the run ends at {0#} rpm; its peak may lie above.':
    'Die Leistung steigt noch, wo der Lauf bei {0} rpm endet; ihr Höchstwert kann darüber liegen.',
  'Torque is cut for {0#} s at {1#} rpm: fuel, spark or current was taken away. Look for the cause before the next run.':
    'Das Drehmoment setzt bei {1} rpm für {0} s aus: Kraftstoff, Zündung oder Strom wurde weggenommen. Vor dem nächsten Lauf die Ursache suchen.',
  'Torque falls to {0#} % for {1#} s at {2#} rpm and comes back: the throttle was not held, or the engine controller took it back.':
    'Das Drehmoment fällt bei {2} rpm für {1} s auf {0} % und kommt zurück: das Gas wurde nicht gehalten, oder das Steuergerät nahm es zurück.',
  'The throttle reads {0#} % through the pull: it was not fully open, or its sensor needs calibration.':
    'Die Drosselklappe zeigt im ganzen Zug {0} %: sie war nicht ganz offen, oder ihr Sensor ist zu kalibrieren.',
  'The throttle falls to {0#} % between {1#} and {2#} rpm; the curve there is not full throttle.':
    'Die Drosselklappe fällt zwischen {1} und {2} rpm auf {0} %; dort ist die Kurve nicht Vollgas.',
  'The pull ends on the rev limiter at {0#} rpm; nothing is known above it.':
    'Der Zug endet bei {0} rpm am Drehzahlbegrenzer; darüber ist nichts bekannt.',
  'Torque comes and goes by {0#} % all along the pull: the engine runs rough. Look at ignition and fuelling before tuning on.':
    'Das Drehmoment schwankt im ganzen Zug um {0} %: der Motor läuft unrund. Zündung und Gemisch ansehen, bevor weiter abgestimmt wird.',
  "Torque falls to {0#} % between {1#} and {2#} rpm and stays there to the end: a controller in limp mode, or air or fuel missing from there on. Read its fault memory before the next run; figures above {3#} rpm are not the engine's.":
    'Das Drehmoment fällt zwischen {1} und {2} rpm auf {0} % und bleibt dort bis zum Ende: ein Steuergerät im Notlauf, oder von dort an fehlt Luft oder Kraftstoff. Vor dem nächsten Lauf den Fehlerspeicher lesen; Zahlen über {3} rpm sind nicht die des Motors.',
  "The tyres slip {0}; the figures there are not the engine's. Check straps, tyre pressure and temperature before the next run.":
    'Die Reifen rutschen {0}; dort sind die Zahlen nicht die des Motors. Vor dem nächsten Lauf Gurte, Reifendruck und Temperatur prüfen.',
  'by up to {0#} % from {1#} to {2#} rpm': 'um bis zu {0} % von {1} bis {2} rpm',
  "The engine runs up to {0#} % ahead of the drum at low speed, least at the top: a converter that is not locked. Power there is less than the engine's.":
    'Der Motor läuft der Rolle bei niedriger Drehzahl um bis zu {0} % voraus, oben am wenigsten: ein Wandler, der nicht überbrückt ist. Dort ist die Leistung kleiner als die des Motors.',
  'The engine runs up to {0#} % ahead of the drum at {1#} rpm, growing with torque: a clutch or lock-up slips.':
    'Der Motor läuft der Rolle bei {1} rpm um bis zu {0} % voraus, wachsend mit dem Drehmoment: eine Kupplung oder Überbrückung rutscht.',
  'The tyre hops {0#} times a second {1}. Re-check straps and pressure before the next run.':
    'Der Reifen springt {0}-mal in der Sekunde {1}. Vor dem nächsten Lauf Gurte und Druck erneut prüfen.',
  'from {0#} to {1#} rpm, slip swinging by {2#} %': 'von {0} bis {1} rpm, mit Schlupf, der um {2} % schwingt',
};
