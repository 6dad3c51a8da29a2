import type { Bundle } from 'fhir/r4.js';
import { type Caller, inWorld, treated } from './harness.js';

const exported = async (who: Caller, personId: string): Promise<Bundle> =>
  (await who.get(`/api/people/${personId}/fhir`).expect(200)).body as Bundle;

/** Without the moment it was written at. */
const lasting = ({ timestamp: _timestamp, ...bundle }: Bundle): unknown => bundle;

describe('a record', () => {
  const { world, who } = inWorld();

  it('of two years, logged every day and seen every fortnight, goes out and comes back the same', async () => {
    const { person, episodeId, visitId, plan } = await treated(who);
    await who.post(`/api/visits/${visitId}/sign`).expect(200);
    await world.owner.query(
      `INSERT INTO visit (id, clinic_id, episode_id, kind, started_at)
       SELECT gen_random_uuid(), v.clinic_id, v.episode_id, 'review', v.started_at - interval '14 days' * n
         FROM visit v, generate_series(1, 52) n WHERE v.id = $1`,
      [visitId],
    );
    await world.owner.query(
      `INSERT INTO visit_entry (id, clinic_id, visit_id, key, version, value, author_id, at)
       SELECT gen_random_uuid(), e.clinic_id, v.id, e.key, e.version, e.value, e.author_id, v.started_at
         FROM visit_entry e, visit v WHERE e.visit_id = $1 AND v.episode_id = $2 AND v.id <> $1`,
      [visitId, episodeId],
    );
    await world.owner.query(
      `UPDATE visit SET signed_at = started_at, signed_by = (SELECT signed_by FROM visit WHERE id = $1)
        WHERE episode_id = $2 AND id <> $1`,
      [visitId, episodeId],
    );
    const session = {
      scores: { before: 2, during: 3, after: 2, 'hour-above': false },
      exercises: plan.items.map((i) => ({ exercise: i.exercise, sets: 2, reps: 10, effort: 4 })),
    };
    await world.owner.query(
      `INSERT INTO home_entry (id, version, clinic_id, episode_id, plan_id, kind, day, payload, at)
       SELECT gen_random_uuid(), 1, e.clinic_id, e.id, k.plan_id, k.kind, current_date - n, k.payload, now() - interval '1 day' * n
         FROM episode e, generate_series(1, 730) n,
              (VALUES ('session', $2::uuid, $3::jsonb), ('morning', NULL, $4::jsonb)) AS k (kind, plan_id, payload)
        WHERE e.id = $1`,
      [episodeId, plan.id, JSON.stringify(session), JSON.stringify({ scores: { morning: 2 } })],
    );
    const course = async () =>
      (await who.get(`/api/episodes/${episodeId}/course`).expect(200)).body as object;
    const [bundle, before] = [await exported(who, person.id), await course()];
    expect(bundle.entry?.length).toBeGreaterThan(1460 + 53);
    await (
      await world.as(0, 'lead')
    )
      .post(`/api/people/${person.id}/erase`, {
        name: person.name,
        reason: 'moved out and back',
        early: true,
      })
      .expect(200);
    await who.post('/api/exchange/fhir', bundle).expect(201);
    expect(lasting(await exported(who, person.id))).toEqual(lasting(bundle));
    expect(await course()).toEqual(before);
  });
});
