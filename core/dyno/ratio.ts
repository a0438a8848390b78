/** A rolling tyre is flattened where it stands: its circumference is less than that of the free one by about this share. */
export const rollingShare = 0.97;

const size = /^\s*(\d{2,3})\s*\/\s*(\d{2,3})\s*(?:Z?R|-|B)\s*(\d{2}(?:\.\d)?)/i;

/**
 * Rolling circumference of a tyre from its size, m: `205/55 R16` is width mm,
 * height in percent of it, rim inches. An estimate: makes of one size differ
 * by 1 to 2 %, wear takes 1 to 2 %, speed gives some back.
 * @returns undefined when the size cannot be read
 */
export function tyreCircumferenceM(text: string): number | undefined {
  const found = size.exec(text);
  if (!found) return undefined;
  const [width, height, rim] = found.slice(1).map(Number) as [number, number, number];
  const diameterM = (rim * 25.4 + (2 * width * height) / 100) / 1000;
  return Math.PI * diameterM * rollingShare;
}

/** Engine speed per road speed, rpm per km/h, from the total ratio engine ÷ wheel and the tyre. */
export function rpmPerKmh(gearRatio: number, finalDrive: number, circumferenceM: number): number {
  return (gearRatio * finalDrive * 1000) / 60 / circumferenceM;
}

/** Engine ÷ drum speed for a tyre on a drum: what one turn of the drum takes of the engine's. */
export function engineToDrumRatio(
  gearRatio: number,
  finalDrive: number,
  circumferenceM: number,
  drumRadiusM: number,
): number {
  return (gearRatio * finalDrive * 2 * Math.PI * drumRadiusM) / circumferenceM;
}
