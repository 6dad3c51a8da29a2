import { gpx, tcx } from '@tmcw/togeojson';
import type { Feature } from 'geojson';
import { type Document, DOMParser, type Element, ParseError } from '@xmldom/xmldom';
import { type OutingFigures, outingOf, say, type TrackPoint } from '@heathstep/core';
import { badRequest } from '../http/problem.js';

const refused = (detail: string) => badRequest([{ pointer: '/file', detail }]);

const MOST_OUTINGS = 500;

/** A document, or why it is none and at which line. */
function parsed(bytes: unknown): Document {
  if (!Buffer.isBuffer(bytes) || bytes.length === 0)
    throw refused(say('A recording is wanted, as GPX or TCX'));
  const text = new TextDecoder('utf-8').decode(bytes);
  // Nothing of a recording is defined within it, and nothing is fetched.
  if (/<!(DOCTYPE|ENTITY)/i.test(text))
    throw refused(say('This is no GPX or TCX: it defines parts of its own'));
  let first: { readonly line: number; readonly reason: string } | null = null;
  try {
    const document = new DOMParser({
      onError: (level, message, context: { locator?: { lineNumber?: number } }) => {
        if (level !== 'warning')
          first ??= { line: Math.max(1, context.locator?.lineNumber ?? 1), reason: message };
      },
    }).parseFromString(text, 'text/xml');
    if (first === null) return document;
  } catch (error) {
    if (!(error instanceof ParseError)) throw error;
    first ??= {
      line: (error.locator as { lineNumber?: number } | undefined)?.lineNumber ?? 1,
      reason: error.message,
    };
  }
  const { line, reason } = first as { line: number; reason: string };
  throw refused(
    say('The file is broken at line {{line}}: {{reason}}', {
      line,
      reason: (reason.split('\n')[0] ?? '').slice(0, 160),
    }),
  );
}

const elements = (of: Document | Element, name: string): Element[] =>
  Array.from(of.getElementsByTagName(name));

const textIn = (of: Element, name: string): string | null =>
  elements(of, name)[0]?.textContent?.trim() ?? null;

const numberIn = (text: string | null, least: number, most: number): boolean =>
  text !== null &&
  text !== '' &&
  Number.isFinite(Number(text)) &&
  Number(text) >= least &&
  Number(text) <= most;

/** What is wrong with a point of a recording; null where nothing is. */
function wrongPoint(point: Element, kind: 'gpx' | 'tcx'): string | null {
  const position = kind === 'gpx' ? point : elements(point, 'Position')[0];
  if (position === undefined) return null;
  const [lat, lon] =
    kind === 'gpx'
      ? [point.getAttribute('lat'), point.getAttribute('lon')]
      : [textIn(position, 'LatitudeDegrees'), textIn(position, 'LongitudeDegrees')];
  if (!numberIn(lat, -90, 90) || !numberIn(lon, -180, 180)) return say('a place is no place on earth');
  const time = textIn(point, kind === 'gpx' ? 'time' : 'Time');
  if (time === null) return say('a point has no time; a planned route is no recording');
  return Number.isNaN(Date.parse(time)) ? say('a time is no time') : null;
}

/** Refuses a document at the line of the first point that cannot be. */
function refuseWrong(document: Document, kind: 'gpx' | 'tcx'): void {
  for (const point of elements(document, kind === 'gpx' ? 'trkpt' : 'Trackpoint')) {
    const wrong = wrongPoint(point, kind);
    const { lineNumber } = point as { lineNumber?: number };
    if (wrong !== null)
      throw refused(say('Line {{line}}: {{reason}}', { line: lineNumber ?? 1, reason: wrong }));
  }
}

interface Way {
  readonly places: readonly (readonly number[])[];
  readonly times: readonly (string | undefined)[];
}

/** Each recorded way of a file; one that paused is one way. */
function waysIn(document: Document, kind: 'gpx' | 'tcx'): Way[] {
  const { features } = kind === 'gpx' ? gpx(document) : tcx(document);
  return features.flatMap(({ geometry, properties }: Feature): Way[] => {
    const times = (properties?.['coordinateProperties'] as { times?: unknown } | undefined)?.times;
    if (geometry.type === 'LineString')
      return [{ places: geometry.coordinates, times: (times ?? []) as string[] }];
    if (geometry.type === 'MultiLineString')
      return [{ places: geometry.coordinates.flat(), times: ((times ?? []) as string[][]).flat() }];
    return [];
  });
}

const pointsOf = ({ places, times }: Way): TrackPoint[] =>
  places
    .flatMap(([lon = NaN, lat = NaN, altitude], i): TrackPoint[] => {
      const at = Date.parse(times[i] ?? '');
      return Number.isNaN(at) ? [] : [{ at, lat, lon, altitude: altitude ?? null }];
    })
    .toSorted((a, b) => a.at - b.at);

/**
 * The runs and walks of a GPX or TCX file, oldest first. A file that is broken, a place that is none and a point without a
 * time are refused with their line, and nothing of the file is taken.
 */
export function readTrack(bytes: unknown): OutingFigures[] {
  const document = parsed(bytes);
  const root = document.documentElement?.localName;
  const kind = root === 'gpx' ? 'gpx' : root === 'TrainingCenterDatabase' ? 'tcx' : null;
  if (kind === null) throw refused(say('A recording is wanted, as GPX or TCX'));
  refuseWrong(document, kind);
  const ways = waysIn(document, kind);
  if (ways.length === 0) throw refused(say('Nothing in this file was recorded on the way: it has no track'));
  if (ways.length > MOST_OUTINGS) throw refused(say('At most {{n}} recordings at once', { n: MOST_OUTINGS }));
  return ways
    .map((way, i) => {
      const read = outingOf(pointsOf(way));
      if (!read.ok)
        throw refused(
          say('Recording {{n}} must be {{bound}}', { n: i + 1, bound: read.issues[0]?.bound ?? '' }),
        );
      return read.value;
    })
    .toSorted((a, b) => a.startedAt - b.startedAt);
}
