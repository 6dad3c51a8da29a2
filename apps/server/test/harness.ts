import { gzipSync } from 'node:zlib';
import { jsonLines } from '@heathstep/core/lab';
import { recordMat, simulateMat, walkerOf } from '@heathstep/core/simulate';
import { join } from 'node:path';
import type { NestExpressApplication } from '@nestjs/platform-express';
import { hash } from '@node-rs/argon2';
import { randomUUID } from 'node:crypto';
import { Client } from 'pg';
import sharp from 'sharp';
import request from 'supertest';
import type { DataSource } from 'typeorm';
import type {
  CourseView,
  DecidedOn,
  EpisodeView,
  PersonRow,
  PlanView,
  VisitView,
} from '@heathstep/contracts';
import { createApp } from '../src/app.js';
import { DayController } from '../src/day/day.controller.js';
import { AppUser, Clinic } from '../src/persistence/entities.js';
import { prepareDatabase } from '../src/persistence/prepare.js';
import { loadContent } from '@heathstep/content';

export const PASSWORD = 'a long test password';

type Role = 'lead' | 'clinician' | 'assistant';

/** A signed-in member of a clinic. */
export interface Caller {
  readonly get: (path: string) => request.Test;
  readonly post: (path: string, body?: object) => request.Test;
  readonly put: (path: string, body?: object) => request.Test;
  readonly patch: (path: string, body?: object) => request.Test;
  readonly del: (path: string) => request.Test;
  readonly email: string;
}

export interface World {
  readonly app: NestExpressApplication;
  readonly owner: DataSource;
  readonly appUrl: string;
  /** Two clinics that must never see each other. */
  readonly clinics: readonly [string, string];
  readonly as: (clinic: 0 | 1, role: Role) => Promise<Caller>;
  readonly anonymous: Caller;
  readonly stop: () => Promise<void>;
}

function inDatabase(url: string, name: string): string {
  const changed = new URL(url);
  changed.pathname = `/${name}`;
  return changed.href;
}

const MIGRATED = 'migrated';

/** A database with every migration done: made once, and copied for each world. */
async function copyOfMigrated(name: string): Promise<void> {
  const admin = new Client({ connectionString: process.env['HEATHSTEP_TEST_OWNER_URL'] });
  await admin.connect();
  const { rowCount } = await admin.query('SELECT 1 FROM pg_database WHERE datname = $1', [MIGRATED]);
  if (rowCount === 0) {
    await admin.query(`CREATE DATABASE ${MIGRATED}`);
    const url = inDatabase(process.env['HEATHSTEP_TEST_OWNER_URL'] ?? '', MIGRATED);
    const { source } = await prepareDatabase(url, 'heathstep_app');
    await source.destroy();
  }
  await admin.query(`CREATE DATABASE ${name} TEMPLATE ${MIGRATED}`);
  await admin.end();
}

/** The whole server on a database of its own, with two clinics of three people each. */
export async function makeWorld(
  contentRoot: string | null = null,
  publicUrl: string | null = null,
): Promise<World> {
  const name = `t_${randomUUID().replaceAll('-', '')}`;
  await copyOfMigrated(name);
  const appUrl = inDatabase(process.env['HEATHSTEP_TEST_APP_URL'] ?? '', name);
  const { source: owner } = await prepareDatabase(
    inDatabase(process.env['HEATHSTEP_TEST_OWNER_URL'] ?? '', name),
    'heathstep_app',
  );
  const passwordHash = await hash(PASSWORD, { memoryCost: 8192, timeCost: 1 });
  const clinics = [randomUUID(), randomUUID()] as const;
  for (const [i, id] of clinics.entries()) {
    await owner.manager.insert(Clinic, {
      id,
      name: `Clinic ${i}`,
      locale: 'en-GB',
      timeZone: 'UTC',
      phone: '01632 960 000',
      emergencyNumber: '112',
    });
    for (const role of ['lead', 'clinician', 'assistant'] as const) {
      await owner.manager.insert(AppUser, {
        id: randomUUID(),
        clinicId: id,
        email: `${role}${i}@clinic.example`,
        name: `${role} ${i}`,
        role,
        passwordHash,
      });
    }
  }
  const app = await createApp({
    port: 0,
    databaseUrl: appUrl,
    ownerUrl: '',
    webRoot: '/nonexistent',
    version: 'test',
    logLevel: 'silent',
    devicesUrl: null,
    contentRoot,
    fontsRoot: join(__dirname, '..', '..', '..', 'node_modules', '@fontsource', 'hanken-grotesk', 'files'),
    publicUrl,
    secureCookies: publicUrl !== null,
    metricsPort: null,
  });
  // The whole day at once: what a slow machine would leave for later is a test's own matter (dayWork).
  app.get(DayController).patience = Number.POSITIVE_INFINITY;
  await app.listen(0, '127.0.0.1');
  const server = app.getHttpServer();
  const caller = (cookie: string, email: string): Caller => {
    const with_ = (t: request.Test, body?: object) =>
      (body === undefined ? t : t.send(body)).set('cookie', cookie);
    return {
      email,
      get: (path) => with_(request(server).get(path)),
      post: (path, body) => with_(request(server).post(path), body),
      put: (path, body) => with_(request(server).put(path), body),
      patch: (path, body) => with_(request(server).patch(path), body),
      del: (path) => with_(request(server).delete(path)),
    };
  };
  const known = new Map<string, Caller>();
  return {
    app,
    owner,
    appUrl,
    clinics,
    anonymous: caller('', ''),
    as: async (clinic, role) => {
      const email = `${role}${clinic}@clinic.example`;
      const before = known.get(email);
      if (before !== undefined) return before;
      const response = await request(server)
        .post('/api/session')
        .send({ email, password: PASSWORD })
        .expect(200);
      const made = caller(cookieOf(response), email);
      known.set(email, made);
      return made;
    },
    stop: async () => {
      await app.close();
      await owner.destroy();
    },
  };
}

/** A world of its own for the tests of a block, and its clinician; both are there as soon as the first test begins. */
export function inWorld(): { readonly world: World; readonly who: Caller } {
  let made: World | undefined;
  let clinician: Caller | undefined;
  const world = (): World => made ?? orFail();
  const who = (): Caller => clinician ?? orFail();
  const orFail = (): never => {
    throw new Error('the world is made before the first test, not while tests are told');
  };
  beforeAll(async () => {
    made = await makeWorld();
    clinician = await made.as(0, 'clinician');
  });
  afterAll(() => made?.stop());
  return {
    world: {
      get app() {
        return world().app;
      },
      get owner() {
        return world().owner;
      },
      get appUrl() {
        return world().appUrl;
      },
      get clinics() {
        return world().clinics;
      },
      get anonymous() {
        return world().anonymous;
      },
      as: (clinic, role) => world().as(clinic, role),
      stop: () => world().stop(),
    },
    who: {
      get email() {
        return who().email;
      },
      get: (path) => who().get(path),
      post: (path, body) => who().post(path, body),
      put: (path, body) => who().put(path, body),
      patch: (path, body) => who().patch(path, body),
      del: (path) => who().del(path),
    },
  };
}

export const cookieOf = (response: request.Response): string =>
  String((response.headers['set-cookie'] as unknown as string[])[0]).split(';')[0] ?? '';

export const withCookie = (
  world: World,
  cookie: string,
): Record<'put' | 'post', (path: string, body: object) => request.Test> & {
  get: (path: string) => request.Test;
} => ({
  get: (path) => request(world.app.getHttpServer()).get(path).set('cookie', cookie),
  put: (path, body) => request(world.app.getHttpServer()).put(path).set('cookie', cookie).send(body),
  post: (path, body) => request(world.app.getHttpServer()).post(path).set('cookie', cookie).send(body),
});

/** What a phone asks with. */
export type Phone = ReturnType<typeof withCookie>;

/** Makes a link for home and opens it on a phone, as the patient does. */
export async function openAtHome(world: World, who: Caller, episodeId: string): Promise<Phone> {
  const { token, code } = (await who.post(`/api/episodes/${episodeId}/home-link`).expect(201)).body;
  return withCookie(
    world,
    cookieOf(await world.anonymous.post('/api/home/session', { token, code }).expect(200)),
  );
}

export async function addPerson(who: Caller, name = 'Bram Sedge'): Promise<PersonRow> {
  return (
    await who
      .post('/api/people', { id: randomUUID(), name, birthDate: '1980-05-01', occupation: 'weaver' })
      .expect(201)
  ).body as PersonRow;
}

export async function addEpisode(who: Caller, personId: string, affected = 'left'): Promise<EpisodeView> {
  return (
    await who
      .post(`/api/people/${personId}/episodes`, {
        id: randomUUID(),
        condition: 'plantar-heel-pain',
        affected,
      })
      .expect(201)
  ).body as EpisodeView;
}

export async function openVisit(who: Caller, episodeId: string): Promise<VisitView> {
  return (await who.post(`/api/episodes/${episodeId}/visits`, { id: randomUUID() }).expect(201))
    .body as VisitView;
}

export const entry = (key: string, value: unknown, baseVersion = 0): object => ({
  id: randomUUID(),
  key,
  baseVersion,
  value,
});

const loaded = loadContent();

/** Every safety question answered no, but for these. */
export function safetyEntries(answers: Record<string, string> = {}): object[] {
  if (!loaded.ok) throw new Error('content');
  return loaded.content.safetyQuestions.map((q) => entry(`safety.${q.key}`, answers[q.key] ?? 'no'));
}

export const measured = (key: string, left: number[], right: number[]): object[] => [
  entry(`measure.${key}.left`, { trials: left, status: 'taken', pain: null }),
  entry(`measure.${key}.right`, { trials: right, status: 'taken', pain: null }),
];

/** A person with a first visit answered and a plan given. */
export async function treated(
  who: Caller,
  answers: Record<string, string> = {},
  name?: string,
): Promise<{ person: PersonRow; episodeId: string; visitId: string; plan: PlanView }> {
  const person = await addPerson(who, name);
  const episode = await addEpisode(who, person.id);
  const visit = await openVisit(who, episode.id);
  await who
    .put(`/api/visits/${visit.id}/entries`, {
      entries: [
        ...safetyEntries(answers),
        ...measured('first-step-pain', [4], [0]),
        ...measured('single-leg-heel-raise', [8], [18]),
      ],
    })
    .expect(200);
  const draft = (
    await who
      .post(`/api/episodes/${episode.id}/plans`, { id: randomUUID(), stage: 'build', from: 'stage' })
      .expect(201)
  ).body as PlanView;
  const plan = (await who.post(`/api/plans/${draft.id}/give`, { version: draft.version }).expect(200))
    .body as PlanView;
  return { person, episodeId: episode.id, visitId: visit.id, plan };
}

export const today = (): string => new Date().toISOString().slice(0, 10);

/** A small drawn picture as a phone would send it. */
export const drawnPicture = (format: 'jpeg' | 'png' = 'jpeg'): Promise<Buffer> =>
  sharp({ create: { width: 300, height: 400, channels: 3, background: '#d9a98b' } })
    .toFormat(format)
    .toBuffer();

/** Opens a review of an episode and takes a picture of the left hallux in it. */
export async function takePhoto(world: World, episodeId: string): Promise<string> {
  const who = await world.as(0, 'clinician');
  const visit = (await who.post(`/api/episodes/${episodeId}/visits`, { id: randomUUID() })).body;
  const id = randomUUID();
  await who
    .put(`/api/visits/${visit.id}/photos/${id}?measure=hallux-angle&side=left`)
    .type('application/octet-stream')
    .send(await drawnPicture())
    .expect(200);
  return id;
}

/** A capture of a made-up person as the lab sends it, packed. */
export function packedCapture(seconds = 1): Buffer {
  const known = packed.get(seconds);
  if (known !== undefined) return known;
  const sim = simulateMat({ walker: walkerOf(4), task: 'stance', side: 'both', seed: 2, mistakes: [] });
  const made = gzipSync([...jsonLines(recordMat(sim, seconds))].join(''));
  packed.set(seconds, made);
  return made;
}
const packed = new Map<number, Buffer>();

export const CAPTURE = 'task=stance&side=both&wearing=barefoot&from=device&note=&mass=70';

/** Keeps a capture of a made-up person with an episode. */
export async function keepCapture(world: World, episodeId: string): Promise<string> {
  const who = await world.as(0, 'clinician');
  const id = randomUUID();
  await who
    .put(`/api/episodes/${episodeId}/captures/${id}?${CAPTURE}`)
    .type('application/octet-stream')
    .send(packedCapture())
    .expect(200);
  return id;
}

/** What a decision made now would be made on. */
export async function decidedOn(who: Caller, episodeId: string): Promise<DecidedOn> {
  const { episode, review } = (await who.get(`/api/episodes/${episodeId}/course`).expect(200))
    .body as CourseView;
  if (review === null) throw new Error('there is nothing to decide about');
  return { stage: episode.stage, planId: episode.plan?.id ?? null, suggested: review.decision };
}
