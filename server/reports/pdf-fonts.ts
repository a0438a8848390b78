import { Font } from '@react-pdf/renderer';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

const besideOf = (address: string) => (path: string) => join(dirname(fileURLToPath(address)), path);
const archivo = besideOf(import.meta.resolve('@fontsource/archivo/package.json'));
const dejavu = besideOf(import.meta.resolve('dejavu-fonts-ttf/package.json'));

/** The page's own letters, then those that it lacks: other Latin ones, Greek and Cyrillic, signs of arithmetic. */
export const letters = ['Archivo', 'Archivo more', 'Signs'];

let registered = false;

/** Makes the fonts known that are embedded in every document. */
export function registerFonts(): void {
  if (registered) return;
  registered = true;
  for (const weight of [400, 600, 700] as const) {
    const latin = (part: string) => archivo(`files/archivo-${part}-${weight}-normal.woff`);
    const signs = dejavu(`ttf/DejaVuSansCondensed${weight > 400 ? '-Bold' : ''}.ttf`);
    Font.register({ family: 'Archivo', fontWeight: weight, src: latin('latin') });
    Font.register({ family: 'Archivo more', fontWeight: weight, src: latin('latin-ext') });
    Font.register({ family: 'Signs', fontWeight: weight, src: signs });
  }
  // A word that is too long for its line is broken anywhere; others never are.
  Font.registerHyphenationCallback((word) => (word.length > 24 ? (word.match(/.{1,12}/gu) ?? [word]) : [word]));
}
