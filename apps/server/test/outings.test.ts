import { randomUUID } from 'node:crypto';
import type { CourseView, OutingsView } from '@heathstep/contracts';
import { addDays } from '@heathstep/core';
import { addEpisode, addPerson, type Caller, inWorld, today, treated } from './harness.js';

const METRES_A_DEGREE = 111_195;

interface Fix {
  readonly time: string;
  readonly lat: number;
  readonly lon: number;
  readonly ele: number;
}

/** A way to the north, a point every five seconds: so many minutes at so many metres a second. */
function fixes(day: string, minutes: number, speed: number): Fix[] {
  const start = Date.parse(`${day}T07:00:00Z`);
  return Array.from({ length: minutes * 12 + 1 }, (_, i) => ({
    time: new Date(start + i * 5000).toISOString(),
    lat: 54 + (i * 5 * speed) / METRES_A_DEGREE,
    lon: -2,
    ele: 200 + i / 12,
  }));
}

const gpxOf = (points: readonly Fix[]): string =>
  `<?xml version="1.0" encoding="UTF-8"?>
<gpx version="1.1" creator="a test">
<trk><name>Morning</name><trkseg>
${points.map((p) => `<trkpt lat="${p.lat}" lon="${p.lon}"><ele>${p.ele}</ele><time>${p.time}</time></trkpt>`).join('\n')}
</trkseg></trk></gpx>`;

const tcxOf = (points: readonly Fix[]): string =>
  `<?xml version="1.0" encoding="UTF-8"?>
<TrainingCenterDatabase>
<Activities><Activity Sport="Running"><Id>${points[0]?.time ?? ''}</Id><Lap StartTime="${points[0]?.time ?? ''}"><Track>
${points
  .map(
    (p) =>
      `<Trackpoint><Time>${p.time}</Time><Position><LatitudeDegrees>${p.lat}</LatitudeDegrees><LongitudeDegrees>${p.lon}</LongitudeDegrees></Position><AltitudeMeters>${p.ele}</AltitudeMeters></Trackpoint>`,
  )
  .join('\n')}
</Track></Lap></Activity></Activities></TrainingCenterDatabase>`;

const send = (who: Caller, personId: string, text: string, name = 'run.gpx') =>
  who
    .post(`/api/people/${personId}/outings`)
    .set('x-file-name', encodeURIComponent(name))
    .type('application/octet-stream')
    .send(Buffer.from(text));

describe('runs and walks from the files of a watch', () => {
  const { who, world } = inWorld();
  const yesterday = addDays(today(), -1);

  it.each([
    ['GPX', gpxOf],
    ['TCX', tcxOf],
  ] as const)('of a %s say how long, how far, how much was run and how far up', async (_name, written) => {
    const person = await addPerson(who);
    const text = written(fixes(yesterday, 20, 3));
    const { body } = await send(who, person.id, text, 'Früh.gpx').expect(201);
    const { taken, outings } = body as OutingsView;
    expect(taken).toBe(1);
    expect(outings).toMatchObject([{ day: yesterday, file: 'Früh.gpx', by: 'clinician 0' }]);
    const [run] = outings;
    expect(run?.minutes).toBeCloseTo(20, 6);
    expect(run?.runMinutes).toBeCloseTo(20, 6);
    expect(Math.abs((run?.metres ?? 0) - 3600)).toBeLessThan(5);
    expect(run?.climbMetres).toBeGreaterThan(16);
    // The same file again brings nothing.
    expect((await send(who, person.id, text).expect(201)).body).toMatchObject({ taken: 0, here: 1 });
  });

  it('count as done for every complaint of the person, once beside what was logged, and no more when taken back', async () => {
    const { person, episodeId } = await treated(who);
    const second = await addEpisode(who, person.id, 'right');
    const course = async (id: string) =>
      (await who.get(`/api/episodes/${id}/course`).expect(200)).body as CourseView;
    const before = await course(episodeId);
    expect(before.runsDone).toEqual([]);
    const { outings } = (await send(who, person.id, gpxOf(fixes(yesterday, 24, 2.6))).expect(201))
      .body as OutingsView;
    for (const id of [episodeId, second.id]) {
      const now = await course(id);
      // Nothing is known of runs before it: a coming week is built on a first week's.
      expect(now.runsDone).toMatchObject([{ day: yesterday, minutes: 20 }]);
      expect(now.impactDone.runMinutes).toBeCloseTo(20, 6);
      expect(now.recorded).toMatchObject([
        { day: yesterday, minutes: expect.closeTo(24, 6), countedMinutes: 20 },
      ]);
    }
    const id = outings[0]?.id ?? '';
    expect(((await who.del(`/api/outings/${id}`).expect(200)).body as OutingsView).outings).toEqual([]);
    expect(await course(episodeId)).toMatchObject({ runsDone: [], impactDone: { runMinutes: 0 } });
    expect(
      ((await who.post(`/api/outings/${id}/back`, {}).expect(200)).body as OutingsView).outings,
    ).toHaveLength(1);
  });

  it('say where one was longer than a tenth over the longest of the 30 days before', async () => {
    const person = await addPerson(who);
    await send(who, person.id, gpxOf(fixes(addDays(today(), -9), 20, 3))).expect(201);
    const { outings } = (await send(who, person.id, gpxOf(fixes(yesterday, 40, 3))).expect(201))
      .body as OutingsView;
    expect(outings.map((o) => o.rise.over)).toEqual([true, false]);
    expect(outings[0]?.rise.mostMinutes).toBeCloseTo(22, 6);
    expect(outings[0]?.runMinutes).toBeCloseTo(40, 6);
  });

  const good = fixes(yesterday, 1, 3);
  it.each([
    ['is cut off', gpxOf(good).slice(0, -30), /^The file is broken at line \d+: /],
    [
      'closes what it did not open',
      gpxOf(good).replace('</ele>', '</elv>'),
      /^The file is broken at line 4: /,
    ],
    [
      'has a place that is none',
      gpxOf(good).replace('lat="54"', 'lat="154"'),
      /^Line 4: a place is no place on earth/,
    ],
    ['has a place in words', tcxOf(good).replace('>-2<', '>west<'), /^Line 4: a place is no place on earth/],
    [
      'has a time that is none',
      gpxOf(good).replace(good[0]?.time ?? '', 'this morning'),
      /^Line 4: a time is no time/,
    ],
    ['is a planned route', gpxOf(good).replaceAll(/<time>.*?<\/time>/g, ''), /^Line 4: a point has no time/],
    ['has no track', gpxOf(good).replace(/<trk>[^]*<\/trk>/, ''), /it has no track/],
    ['was ridden', gpxOf(fixes(yesterday, 10, 15)), /no way on foot/],
    ['was recorded in a time to come', gpxOf(fixes(addDays(today(), 20), 5, 3)), /clock of the watch/],
    ['is another paper', '<kml></kml>', /^A recording is wanted/],
    ['is nothing', 'hello', /^The file is broken at line 1|A recording is wanted/],
    ['defines parts of its own', `<!DOCTYPE g [<!ENTITY a "aa">]>${gpxOf(good)}`, /defines parts of its own/],
  ])('of a file that %s are refused with the place, and nothing is taken', async (_name, text, detail) => {
    const person = await addPerson(who);
    const { body } = await send(who, person.id, text).expect(400);
    expect(body.errors).toEqual([{ pointer: '/file', detail: expect.stringMatching(detail) }]);
    expect((await who.get(`/api/people/${person.id}/outings`).expect(200)).body.outings).toEqual([]);
  });

  it('of someone of another clinic are not there', async () => {
    const person = await addPerson(who);
    const stranger = await world.as(1, 'lead');
    await send(stranger, person.id, gpxOf(good)).expect(404);
    await stranger.del(`/api/outings/${randomUUID()}`).expect(404);
  });
});
