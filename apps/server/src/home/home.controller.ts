import { isDeepStrictEqual } from 'node:util';
import { Body, Controller, Delete, Get, HttpCode, Param, Post, Put, Query, Req, Res } from '@nestjs/common';
import { hash, verify } from '@node-rs/argon2';
import type { Request, Response } from 'express';
import { randomUUID } from 'node:crypto';
import {
  HomeEntryBody,
  HomeOpenBody,
  type HomeEntryView,
  type HomeView,
  homeLogOf,
  lastFaults,
  stoppedText,
  loggedWorkOf,
} from '@heathstep/contracts';
import {
  type Affected,
  addDays,
  exerciseIn,
  stepsOf,
  type Tongue,
  askedIn,
  homeFacts,
  homeQuestions,
  stageOf,
  localDay,
  catchUps,
} from '@heathstep/core';
import { defaultsOf, painSchoolOn } from '../clinic/defaults.js';
import { Clock } from '../clock.js';
import { type AtHome, cookie, HOME_COOKIE, Me, Open, Roles, type SignedIn } from '../auth/auth.js';
import { Content } from '../content/content.controller.js';
import { hashToken, linkCode, linkToken, sessionToken } from '../auth/secrets.js';
import { refuseClosed, revokeLinks } from '../episodes/ending.js';
import { EpisodeReader } from '../episodes/reader.js';
import { type EpisodeRecord, patientPlanOf } from '../episodes/record.js';
import { badRequest, conflict, notFound, ProblemError, refusedNow } from '../http/problem.js';
import { IdPipe } from '../http/validation.js';
import { audit, Db, type Tx } from '../persistence/db.js';
import { EpisodeRow, HomeEntry, HomeLink, HomeSession } from '../persistence/entities.js';
import { Settings } from '../settings.js';
import { checkPayload } from './payload.js';

const LINK_DAYS = 180;
const OPEN_DAYS = 90;
/** A phone used with fewer days left begins anew. [convention] */
const RENEW_UNDER_DAYS = 80;
const DAY_MS = 86_400_000;
const WRONG_CODES_ALLOWED = 5;
const CORRECTION_HOURS = 48;
const DAYS_SHOWN = 21;

/** One answer for every way a link can fail, so that nothing can be learned from it. */
const doesNotOpen = () =>
  new ProblemError(401, 'That does not open', {
    errors: [{ pointer: '/code', detail: 'That does not open' }],
  });

const openUntil = (now: Date): Date => new Date(now.getTime() + OPEN_DAYS * DAY_MS);

/** Checked when there is no such link, so that every answer takes as long. */
const decoy = hash('000000');

@Controller('api')
export class HomeController {
  /** Of the same record the same is shown. */
  private readonly shown = new WeakMap<EpisodeRecord, HomeView>();

  constructor(
    private readonly db: Db,
    private readonly content: Content,
    private readonly reader: EpisodeReader,
    private readonly settings: Settings,
    private readonly clock: Clock,
  ) {}

  /** Makes the patient's link and code, shown this once; an older link stops working. */
  @Roles('lead', 'clinician')
  @HttpCode(201)
  @Post('episodes/:id/home-link')
  make(
    @Me() me: SignedIn,
    @Param('id', IdPipe) episodeId: string,
  ): Promise<{ token: string; code: string; expiresAt: string }> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      const episode = await tx.findOneBy(EpisodeRow, { id: episodeId });
      if (episode === null) throw notFound();
      refuseClosed(episode);
      const [token, code, now] = [linkToken(), linkCode(), this.clock.now()];
      const expiresAt = new Date(now.getTime() + LINK_DAYS * DAY_MS);
      await revokeLinks(tx, episode.personId, now);
      await tx.insert(HomeLink, {
        id: randomUUID(),
        clinicId: me.clinicId,
        episodeId,
        tokenHash: hashToken(token),
        codeHash: await hash(code),
        wrongCodes: 0,
        lockedAt: null,
        createdBy: me.userId,
        createdAt: now,
        expiresAt,
        revokedAt: null,
      });
      await audit(tx, me, { action: 'create', subject: 'home link', personId: episode.personId });
      return { token, code, expiresAt: expiresAt.toISOString() };
    });
  }

  @Roles('lead', 'clinician')
  @HttpCode(204)
  @Delete('episodes/:id/home-link')
  revoke(@Me() me: SignedIn, @Param('id', IdPipe) episodeId: string): Promise<void> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      const episode = await tx.findOneBy(EpisodeRow, { id: episodeId });
      if (episode === null) throw notFound();
      await revokeLinks(tx, episode.personId, this.clock.now());
      await audit(tx, me, { action: 'revoke', subject: 'home link', personId: episode.personId });
    });
  }

  /**
   * Opens a link with its code. Five wrong codes lock it for new openings. What is wrong, locked, ended or unknown has one
   * answer, in one time.
   */
  @Open('anyone')
  @HttpCode(200)
  @Post('home/session')
  async open(
    @Body() body: HomeOpenBody,
    @Res({ passthrough: true }) response: Response,
  ): Promise<{ ok: true }> {
    const found = await this.db.lookUp<{ id: string; clinic_id: string }>(
      'SELECT * FROM find_home_link($1)',
      [hashToken(body.token)],
    );
    if (found === null) {
      await verify(await decoy, body.code);
      throw doesNotOpen();
    }
    const opened = await this.db.inClinic(found.clinic_id, async (tx) => {
      const link = await tx.findOne(HomeLink, {
        where: { id: found.id },
        lock: { mode: 'pessimistic_write' },
      });
      const now = this.clock.now();
      const right = await verify(link?.codeHash ?? (await decoy), body.code);
      if (link === null || link.revokedAt !== null || link.lockedAt !== null || link.expiresAt < now)
        return null;
      if (!right) {
        const wrongCodes = link.wrongCodes + 1;
        const lockedAt = wrongCodes >= WRONG_CODES_ALLOWED ? now : null;
        await tx.update(HomeLink, { id: link.id }, { wrongCodes, lockedAt });
        return null;
      }
      await tx.update(HomeLink, { id: link.id }, { wrongCodes: 0 });
      const token = sessionToken();
      const expiresAt = openUntil(now);
      await tx.insert(HomeSession, {
        tokenHash: hashToken(token),
        clinicId: link.clinicId,
        linkId: link.id,
        episodeId: link.episodeId,
        createdAt: now,
        expiresAt,
      });
      return { token, expiresAt };
    });
    if (opened === null) throw doesNotOpen();
    this.setCookie(response, opened.token, opened.expiresAt);
    return { ok: true };
  }

  /** Ends the opening on this phone; the link and its code open it again. */
  @Open('home')
  @HttpCode(204)
  @Delete('home/session')
  async close(
    @Me() me: AtHome,
    @Req() request: Request,
    @Res({ passthrough: true }) response: Response,
  ): Promise<void> {
    const tokenHash = hashToken(cookie(request, HOME_COOKIE) ?? '');
    response.clearCookie(HOME_COOKIE, { path: '/api/home' });
    await this.db.inClinic(me.clinicId, (tx) => tx.delete(HomeSession, { tokenHash }));
  }

  private setCookie(response: Response, token: string, expires: Date): void {
    response.cookie(HOME_COOKIE, token, {
      httpOnly: true,
      sameSite: 'strict',
      path: '/api/home',
      expires,
      secure: this.settings.config.secureCookies,
    });
  }

  /** A phone that is used stays open: its time begins anew once part of it has passed. */
  private async renew(tx: Tx, request: Request, response: Response): Promise<void> {
    const token = cookie(request, HOME_COOKIE) ?? '';
    const session = await tx.findOneBy(HomeSession, { tokenHash: hashToken(token) });
    const now = this.clock.now();
    if (session === null || session.expiresAt.getTime() - now.getTime() > RENEW_UNDER_DAYS * DAY_MS) return;
    const expiresAt = openUntil(now);
    await tx.update(HomeSession, { tokenHash: session.tokenHash }, { expiresAt });
    this.setCookie(response, token, expiresAt);
  }

  /** What is to be done at home for one of the person's open complaints; the first where none is named. */
  @Open('home')
  @Get('home/today')
  today(
    @Me() me: AtHome,
    @Req() request: Request,
    @Res({ passthrough: true }) response: Response,
    @Query('episode') wanted?: string,
  ): Promise<HomeView> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      await this.renew(tx, request, response);
      const open = await this.reader.openBeside(tx, me.episodeId);
      const asked = open.find((o) => o.id === wanted) ?? open[0];
      const record = await this.reader.shown(tx, asked?.id ?? me.episodeId, asked);
      await audit(tx, me, { action: 'read', subject: 'home', personId: record.row.personId });
      const view = this.shown.get(record) ?? this.view(record);
      this.shown.set(record, view);
      return view;
    });
  }

  /** Saves or corrects a log entry. The same id and version again changes nothing; a correction is a new version within 48 hours. */
  @Open('home')
  @Put('home/entries')
  save(@Me() me: AtHome, @Body() body: HomeEntryBody): Promise<HomeEntryView> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      const episodeId = body.episodeId ?? me.episodeId;
      const open = body.episodeId === undefined ? [] : await this.reader.openBeside(tx, me.episodeId);
      if (body.episodeId !== undefined && open.every((o) => o.id !== body.episodeId))
        throw new ProblemError(401, 'This was logged under another link', {
          detail: 'It waits until their link is opened again',
        });
      // Nothing was written in this transaction yet, so what is shown is what stands.
      const record = await this.reader.shown(tx, episodeId);
      checkPayload(body, homeQuestions(record.protocol));
      const versions = await tx.find(HomeEntry, { where: { id: body.id }, order: { version: 'ASC' } });
      if (versions.some((v) => v.episodeId !== episodeId)) throw notFound();
      const standing = versions.find((v) => v.version === body.version);
      if (standing !== undefined && !isSame(standing, body))
        throw conflict(record.tongue.say('This was changed on another device'), null);
      if (standing === undefined) {
        await this.insert(tx, record, body, versions);
        await audit(tx, me, {
          action: versions.length === 0 ? 'create' : 'change',
          subject: `home ${body.kind}`,
          personId: record.row.personId,
        });
      }
      const now = await this.reader.homeEntry(tx, episodeId, body.id);
      if (now === undefined) throw notFound();
      return now;
    });
  }

  private async insert(
    tx: Tx,
    record: EpisodeRecord,
    body: HomeEntryBody,
    versions: readonly HomeEntry[],
  ): Promise<void> {
    const now = this.clock.now();
    const { tongue: t } = record;
    const [first] = versions;
    const last = versions[versions.length - 1];
    if (body.version !== (last?.version ?? 0) + 1)
      throw conflict(t.say('This was changed on another device'), last ?? null);
    if (first === undefined) {
      this.checkDay(record, body, now);
    } else {
      if (first.kind !== body.kind || first.day !== body.day)
        throw badRequest([{ pointer: '/day', detail: t.say('A correction keeps its day') }]);
      if (body.kind === 'stop')
        throw refusedNow(t.say('A stop sign is not taken back here; tell your clinic'));
      if (now.getTime() - first.at.getTime() > CORRECTION_HOURS * 3_600_000)
        throw refusedNow(t.say('This can be corrected for 48 hours; tell your clinic what was different'));
    }
    await tx.insert(HomeEntry, {
      id: body.id,
      version: body.version,
      clinicId: record.row.clinicId,
      episodeId: record.row.id,
      planId: first?.planId ?? planOf(record, body),
      kind: body.kind,
      day: body.day,
      payload: body.payload,
      at: now,
    });
  }

  /** A morning is answered until midnight; a session or a stop can still arrive from a phone that was offline since yesterday. */
  private checkDay(record: EpisodeRecord, body: HomeEntryBody, now: Date): void {
    const { tongue: t } = record;
    const today = localDay(now, record.clinic.timeZone);
    const earliest = body.kind === 'morning' ? today : addDays(today, -2);
    if (body.day > today || body.day < earliest) {
      throw refusedNow(
        t.say(body.kind === 'morning' ? 'This morning can be answered until midnight' : 'That day is closed'),
        [{ pointer: '/day', detail: t.say('That day is closed') }],
      );
    }
    const once = record.home.find((e) => e.kind === 'morning' && e.day === body.day);
    if (body.kind === 'morning' && once !== undefined)
      throw conflict(t.say('This morning is answered already'), once);
    if (body.kind === 'session' && record.view.plan === null) throw refusedNow(t.say('There is no plan yet'));
  }

  /** A complaint as its patient says it: your left heel, both heels. */
  private placeOf(c: { readonly condition: string; readonly affected: Affected }, t: Tongue): string {
    const place = this.content.bundle.pathways.find((p) => p.key === c.condition)?.place;
    if (place === undefined) return '';
    // Said as a whole: what stands before a word hangs on the word.
    return t.say(c.affected === 'both' ? place.both : `your ${c.affected} ${place.one}`);
  }

  private view(record: EpisodeRecord): HomeView {
    const { view, clinic, home, library, tongue: t } = record;
    const stage = view.plan?.madeOf ?? stageOf(record.protocol, view.stage);
    // An open sign stops the phone whether or not other answers are still missing.
    const blocked = view.heldBack.length > 0;
    const grades = [...view.openStops.map((s) => s.grade), ...view.elsewhere.flatMap((c) => c.openGrades)];
    const stopped =
      grades.length > 0
        ? stoppedText(grades, clinic.emergencyNumber, t)
        : blocked
          ? t.say('Your clinic wants to speak with you before you go on.')
          : null;
    const plan = view.plan === null ? null : patientPlanOf(record, view.plan);
    const items = (plan?.exercises ?? []).flatMap(({ key, item: prescription }) => {
      const exercise = library.exercise(key);
      if (exercise === undefined) return [];
      const cues = lastFaults(view.taught, key).map((fault) => t.say(fault));
      const read = exerciseIn(t, exercise);
      const shown = { ...read, steps: stepsOf(prescription, read, t) };
      return [{ prescription, exercise: shown, figure: library.figure(key) ?? null, cues }];
    });
    const from = addDays(view.today, -DAYS_SHOWN);
    const questions = homeQuestions(record.protocol);
    const painSchool = painSchoolOn(clinic, stage?.painSchool, view.safety?.acts.school ?? null);
    const log = homeFacts(homeLogOf(home, record.harmless), questions, painSchool, view.today);
    return {
      knownStops: [
        ...home.filter((e) => e.kind === 'stop').map((e) => e.id),
        ...view.elsewhere.flatMap((c) => c.stopIds),
      ],
      complaints: [view, ...view.elsewhere.map((c) => ({ ...c, id: c.episodeId }))].map((c) => ({
        episodeId: c.id,
        name: this.placeOf(c, t),
      })),
      episodeId: view.id,
      language: view.person.language,
      firstName: view.person.name.split(/\s+/)[0] ?? '',
      clinic: {
        name: clinic.name,
        phone: clinic.phone,
        emergencyNumber: clinic.emergencyNumber,
        contact: defaultsOf(clinic).contact,
        emergency: defaultsOf(clinic).emergency,
      },
      today: view.today,
      stopped,
      purpose: plan?.purpose ?? (stage === null || stage === undefined ? '' : t.say(stage.purpose.patient)),
      goesOnWhen: plan?.goesOnWhen ?? [],
      affected: view.affected,
      questions: askedIn(questions, stage?.criteria ?? null).map((q) => ({
        ...q,
        ask: t.say(q.ask),
        name: t.say(q.name),
      })),
      planId: view.plan?.id ?? null,
      stopSigns: this.content.bundle.stopSigns.map((s) => ({ ...s, shown: t.say(s.text) })),
      painSchool,
      items: stopped === null ? items : [],
      plan: stopped === null ? (plan?.exercises ?? []) : [],
      beside: plan?.beside ?? [],
      catchUp:
        stopped !== null || view.plan?.givenAt == null
          ? []
          : catchUps(
              items.map((i) => ({ item: i.prescription, definition: i.exercise })),
              {
                done: loggedWorkOf(home).flatMap(({ day, exercises }) =>
                  exercises.map(({ exercise }) => ({ exercise, day })),
                ),
                today: view.today,
                since: localDay(new Date(view.plan.givenAt), clinic.timeZone),
                lastState: log.sessions.at(-1)?.state ?? null,
              },
            ),
      entries: home.filter((e) => e.day > from),
      mornings: log.mornings,
    };
  }
}

/** The plan version a session was done by: the one the phone had, as long as it was given; else the newest. */
function planOf(record: EpisodeRecord, body: HomeEntryBody): string | null {
  const named = record.plans.find((p) => p.id === body.planId && p.status === 'given');
  return (named ?? record.view.plan)?.id ?? null;
}

/** The same entry sent once more. */
const isSame = (standing: HomeEntry, body: HomeEntryBody): boolean =>
  standing.kind === body.kind &&
  standing.day === body.day &&
  isDeepStrictEqual(standing.payload, JSON.parse(JSON.stringify(body.payload)));
