import type { Caller, World } from './harness.js';
import { makeWorld } from './harness.js';

/** Whom each route is for, at least; a route that is not told here fails, and so does one that is told and is not there. */
const FOR = {
  anyone: [
    'GET /api/health/live',
    'GET /api/health',
    'GET /fhir/metadata',
    'POST /api/session',
    'DELETE /api/session',
    'POST /api/session/passkey/options',
    'POST /api/session/passkey',
    'POST /api/account-links',
    'POST /api/account-links/password',
    'GET /api/languages/:code',
    'POST /api/home/session',
  ],
  home: [
    'DELETE /api/home/session',
    'GET /api/home/today',
    'PUT /api/home/entries',
    'GET /api/home/questions',
    'POST /api/home/questions',
    'GET /api/home/plan.ics',
  ],
  assistant: [
    'GET /api/session',
    'PATCH /api/session',
    'GET /api/session/devices',
    'DELETE /api/session/devices',
    'DELETE /api/session/devices/:id',
    'POST /api/session/password',
    'GET /api/session/passkeys',
    'POST /api/session/passkeys',
    'POST /api/session/passkeys/options',
    'DELETE /api/session/passkeys/:id',
    'POST /api/session/second-step',
    'POST /api/session/second-step/first',
    'POST /api/session/second-step/end',
    'GET /api/content',
    'GET /api/day',
    'GET /api/day/day.csv',
    'GET /api/appointments/visits.csv',
    'GET /api/episodes/:id/log.csv',
    'GET /api/content/measures.csv',
    'GET /api/content/exercises.csv',
    'GET /api/appointments',
    'GET /api/people/:id/appointments',
    'GET /api/appointments/visits.ics',
    'POST /api/appointments',
    'PATCH /api/appointments/:id',
    'GET /api/people',
    'POST /api/people',
    'GET /api/people/:id',
    'GET /api/people/:id/kept',
    'GET /api/people/:id/consents',
    'POST /api/people/:id/consents',
    'GET /api/people/:id/outings',
    'POST /api/people/:id/outings',
    'DELETE /api/outings/:id',
    'POST /api/outings/:id/back',
    'PATCH /api/people/:id',
    'POST /api/people/:id/episodes',
    'GET /api/episodes/:id',
    'PATCH /api/episodes/:id',
    'POST /api/episodes/:id/taught',
    'POST /api/episodes/:id/visits',
    'GET /api/visits/:id',
    'PUT /api/visits/:id/entries',
    'POST /api/visits/:id/presence',
    'GET /api/episodes/:id/photos',
    'PUT /api/visits/:id/photos/:photoId',
    'GET /api/photos/:id',
    'POST /api/photos/:id/placements',
    'GET /api/episodes/:id/captures',
    'PUT /api/episodes/:id/captures/:captureId',
    'GET /api/captures/:id/recording',
    'GET /api/captures/:id/page.pdf',
    'DELETE /api/captures/:id',
    'POST /api/captures/:id/keep',
    'GET /api/library/exercises/:key/file',
    'GET /api/library/exercises/:key/versions',
    'GET /api/library/exercises/:key/versions/:version',
    'PUT /api/library/favourites/:key',
    'PUT /api/library/notes/:key',
    'GET /api/library/protocols',
    'GET /api/library/protocols/:key',
    'GET /api/library/protocols/:key/file',
    'GET /api/library/protocols/:key/people',
    'POST /api/episodes/:id/plans',
    'GET /api/plans/:id/brings',
    'POST /api/plans/:id/if',
    'PUT /api/plans/:id',
    'GET /api/episodes/:id/course',
    'GET /api/episodes/:id/events',
    'POST /api/episodes/:id/events',
    'DELETE /api/events/:id',
    'GET /api/episodes/:id/questions',
    'GET /api/episodes/:id/handout',
    'GET /api/episodes/:id/handout.txt',
    'GET /api/episodes/:id/handout.pdf',
    'GET /api/episodes/:id/plan.ics',
  ],
  clinician: [
    'POST /api/day/asides',
    'DELETE /api/day/asides/:id',
    'POST /api/episodes/:id/closures',
    'POST /api/visits/:id/sign',
    'POST /api/measures',
    'POST /api/library/exercises',
    'POST /api/library/bands',
    'POST /api/library/routines',
    'PUT /api/library/routines/:id',
    'PUT /api/library/protocols/:key/draft',
    'DELETE /api/library/protocols/:key/draft',
    'POST /api/library/protocols/:key/move',
    'POST /api/plans/:id/give',
    'POST /api/episodes/:id/decisions',
    'POST /api/episodes/:id/home-link',
    'DELETE /api/episodes/:id/home-link',
    'POST /api/questions/:id/answer',
    'GET /api/outcomes',
    'GET /api/outcomes/outcomes.csv',
    'GET /api/outcomes/people',
    'GET /api/episodes/:id/letter',
    'GET /api/episodes/:id/letter.pdf',
    'GET /api/episodes/:id/letters',
    'POST /api/episodes/:id/letters',
    'GET /api/letters/:id',
    'PUT /api/letters/:id',
    'DELETE /api/letters/:id',
    'POST /api/letters/:id/sent',
    'POST /api/letters/:id/back',
    'GET /api/letters/:id/letter.pdf',
    'GET /api/clinic/letters',
    'GET /api/people/:id/fhir',
    'POST /api/exchange/fhir/look',
    'POST /api/exchange/people/columns',
    'POST /api/exchange/people/look',
    'PUT /api/exchange/people/:table',
    'GET /api/exchange/people/imports',
    'POST /api/exchange/people/imports/:id/undo',
    'GET /api/exchange/people/people.csv',
    'GET /api/exchange/measurements/measurements.csv',
    'POST /api/exchange/measurements/columns',
    'POST /api/exchange/measurements/look',
    'PUT /api/exchange/measurements/:table',
    'GET /api/exchange/measurements/imports',
    'POST /api/exchange/measurements/imports/:id/undo',
    'POST /api/exchange/fhir',
  ],
  lead: [
    'PUT /api/clinic',
    'PUT /api/clinic/defaults',
    'PUT /api/clinic/letters/:letter',
    'GET /api/clinic/staff',
    'GET /api/clinic/staff/staff.csv',
    'POST /api/clinic/staff',
    'POST /api/clinic/staff/:id/link',
    'PATCH /api/clinic/staff/:id',
    'DELETE /api/clinic/staff/:id/second-step',
    'DELETE /api/clinic/staff/:id/sessions',
    'GET /api/audit',
    'GET /api/audit/seals',
    'GET /api/audit/audit.csv',
    'POST /api/people/:id/erase',
    'GET /api/people/:id/merges',
    'POST /api/people/:id/merge',
    'POST /api/merges/:id/undo',
    'GET /api/clinic/erasures/:id/certificate.pdf',
    'GET /api/exchange/measurements/research.csv',
    'GET /api/clinic/erasures',
    'GET /api/people/:id/erasure',
    'GET /api/clinic/programs',
    'POST /api/clinic/programs',
    'DELETE /api/clinic/programs/:id',
    'POST /api/library/reviews',
    'POST /api/library/protocols/:key/publish',
    'POST /api/library/protocols/:key/withdraw',
  ],
  /** By a key of the clinic, whoever is signed in. */
  program: [
    'GET /fhir/Patient',
    'GET /fhir/Patient/:id',
    'GET /fhir/Patient/:id/everything',
    'GET /fhir/:type',
  ],
} as const;
type Least = keyof typeof FOR;

const RULES = Object.entries(FOR).flatMap(([least, routes]) =>
  routes.map((r) => [r, least as Least] as const),
);
const RANK = ['assistant', 'clinician', 'lead'] as const;
const NOBODY = '3f2504e0-4f89-41d3-9a0c-0305e82c3301';

interface Layer {
  readonly route?: { readonly path: string; readonly methods: Readonly<Record<string, boolean>> };
}

describe('every route of the router, for every role', () => {
  let world: World;
  beforeAll(async () => {
    world = await makeWorld();
  });
  afterAll(() => world.stop());

  const send = (who: Caller, route: string) => {
    const [method, pattern = ''] = route.split(' ');
    const path = pattern.replaceAll(':id', NOBODY).replaceAll(/:\w+/g, 'x');
    switch (method) {
      case 'GET':
        return who.get(path);
      case 'POST':
        return who.post(path, {});
      case 'PUT':
        return who.put(path, {});
      case 'PATCH':
        return who.patch(path, {});
      default:
        return who.del(path);
    }
  };

  it('has a rule, and every rule a route', () => {
    const { stack } = (world.app.getHttpAdapter().getInstance() as unknown as { router: { stack: Layer[] } })
      .router;
    const there = stack.flatMap(({ route }) =>
      route === undefined || !/^\/(api|fhir)\//.test(route.path)
        ? []
        : Object.keys(route.methods).map((m) => `${m.toUpperCase()} ${route.path}`),
    );
    expect([...there].sort()).toEqual(RULES.map(([route]) => route).sort());
  });

  it.each(RULES)('%s is for %s', async (route, least) => {
    const anonymous = (await send(world.anonymous, route)).status;
    if (least === 'anyone') {
      expect([200, 204, 400, 404]).toContain(anonymous);
      return;
    }
    expect(anonymous).toBe(401);
    for (const role of RANK) {
      const { status } = await send(await world.as(0, role), route);
      // At home one is known by a link, not as staff: the other way round neither. A program shows its key.
      if (least === 'home' || least === 'program') expect([role, status]).toEqual([role, 401]);
      else if (RANK.indexOf(role) < RANK.indexOf(least)) expect([role, status]).toEqual([role, 403]);
      else expect([role, [401, 403].includes(status) || status >= 500]).toEqual([role, false]);
    }
  });
});
