/** How a unit that others write turns into one of ours: by what it is multiplied. */
const TO: Readonly<Record<string, Readonly<Record<string, number>>>> = {
  mm: { mm: 1, millimetre: 1, millimeter: 1, cm: 10, m: 1000, in: 25.4, inch: 25.4 },
  cm: { cm: 1, centimetre: 1, centimeter: 1, mm: 0.1, m: 100, in: 2.54, inch: 2.54 },
  km: { km: 1, m: 0.001, mi: 1.609344, mile: 1.609344, miles: 1.609344 },
  kg: { kg: 1, kgf: 1, g: 0.001, lb: 0.45359237, lbs: 0.45359237, n: 1 / 9.80665 },
  N: { n: 1, newton: 1, kg: 9.80665, kgf: 9.80665, lb: 4.4482216152605, lbf: 4.4482216152605 },
  s: { s: 1, sec: 1, second: 1, seconds: 1, ms: 0.001, min: 60 },
  min: { min: 1, minute: 1, minutes: 1, s: 1 / 60, h: 60 },
  h: { h: 1, hour: 1, hours: 1, min: 1 / 60 },
  deg: { deg: 1, '°': 1, degree: 1, degrees: 1, rad: 180 / Math.PI },
  'm/s': { 'm/s': 1, 'km/h': 1 / 3.6, kmh: 1 / 3.6, mph: 0.44704 },
  '%': { '%': 1, percent: 1 },
  percent: { '%': 1, percent: 1 },
  ms: { ms: 1, s: 1000 },
  'mm/s': { 'mm/s': 1, 'cm/s': 10 },
  mm2: { mm2: 1, 'mm²': 1, cm2: 100, 'cm²': 100 },
  'deg/s': { 'deg/s': 1, '°/s': 1 },
  kPa: { kpa: 1, 'n/cm2': 10 },
  C: { c: 1, '°c': 1 },
};

/**
 * By what a value in a unit as others write it is multiplied to be in one of ours; null where the two do not belong together.
 * Without a unit it is in ours.
 */
export function factorTo(ours: string, theirs: string): number | null {
  const written = theirs.trim().toLowerCase();
  if (written === '' || written === ours.toLowerCase()) return 1;
  return TO[ours]?.[written] ?? null;
}
