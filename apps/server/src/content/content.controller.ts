import { createHash } from 'node:crypto';
import { Controller, Get, Header, Injectable, Param, Req, Res } from '@nestjs/common';
import type { Request, Response } from 'express';
import { type ContentBundle, type Language, loadContent, loadContentFrom } from '@heathstep/content';
import { type LanguageView, tongueOf } from '@heathstep/contracts';
import {
  type MeasureDefinition,
  NO_PROTOCOL,
  type ProtocolDefinition,
  type TissueDefinition,
  type Tongue,
} from '@heathstep/core';
import { Me, Open, type SignedIn } from '../auth/auth.js';
import { notFound } from '../http/problem.js';
import { Db, type Tx } from '../persistence/db.js';
import { ClinicProtocol, ContentReview } from '../persistence/entities.js';
import { stampOf } from '../persistence/stamps.js';
import { Settings } from '../settings.js';
import { clinicLibrary, Library } from './library.js';
import { Protocols } from './protocols.js';

/** The shipped clinical content; the server does not start on bad content. */
@Injectable()
export class Content {
  readonly bundle: ContentBundle;
  private readonly tongues = new Map<string | null, Tongue>();

  constructor(settings: Settings) {
    const { contentRoot } = settings.config;
    const loaded = contentRoot === null ? loadContent() : loadContentFrom(contentRoot);
    if (!loaded.ok)
      throw new Error(`The clinical content has problems:\n${loaded.problems.map(String).join('\n')}`);
    this.bundle = loaded.content;
  }

  /** A language by its code; null for English, which everything is written in, and for one that is not there. */
  languageOf(code: string | null): Language | null {
    return this.bundle.languages.find((l) => l.code === code) ?? null;
  }

  /** What someone reads in. */
  tongueOf(code: string | null): Tongue {
    const made = this.tongues.get(code);
    if (made !== undefined) return made;
    const tongue = tongueOf(this.languageOf(code));
    this.tongues.set(code, tongue);
    return tongue;
  }

  /** Shipped exercises and figures and this clinic's own, those put aside too: plans may still have them. */
  libraryFor(tx: Tx): Promise<Library> {
    return Library.of(this.bundle, tx);
  }

  /** Shipped measures and this clinic's own, retired ones left out unless asked for. */
  async measuresFor(tx: Tx): Promise<readonly MeasureDefinition[]> {
    const own = await tx.query<{ definition: MeasureDefinition; retired: boolean }[]>(
      'SELECT DISTINCT ON (key) definition, retired FROM clinic_measure ORDER BY key, version DESC',
    );
    return [...this.bundle.measures, ...own.map((o) => o.definition)];
  }

  /** Protocols of this clinic's episodes, in the versions they are on. */
  protocolsFor(tx: Tx): Promise<Protocols> {
    return Protocols.of(this.bundle, tx);
  }

  /** Tissues whose load a protocol counts, in its order. */
  tissuesOf(protocol: Pick<ProtocolDefinition, 'tissues'>): TissueDefinition[] {
    return protocol.tissues.flatMap((key) => this.bundle.tissues.find((t) => t.key === key) ?? []);
  }

  /** A protocol as it stands now for an episode of this clinic that begins: its own published one, else the shipped. */
  async current(tx: Tx, key: string | null): Promise<ProtocolDefinition> {
    if (key === null) return NO_PROTOCOL;
    const own = await tx.findOne(ClinicProtocol, {
      where: { replaces: key, status: 'published' },
      order: { version: 'DESC' },
    });
    if (own !== null) return own.definition as ProtocolDefinition;
    return this.bundle.protocols.find((p) => p.key === key) ?? NO_PROTOCOL;
  }
}

interface OwnRow {
  readonly key: string;
  readonly version: number;
  readonly filled: unknown;
  readonly retired: boolean;
}

/** What the answer is made of beside the shipped content. */
const MADE_OF = [
  'app_user',
  'clinic_measure',
  'clinic_exercise',
  'clinic_routine',
  'exercise_favourite',
  'exercise_note',
  'band_calibration',
  'content_review',
] as const;

/** Answers of about a megabyte that are kept to be given again. */
const MOST_KEPT = 16;

@Controller('api/content')
export class ContentController {
  private readonly kept = new Map<string, string>();

  constructor(
    private readonly content: Content,
    private readonly db: Db,
  ) {}

  /**
   * All content, what this clinic has of its own, and what one of its people marked. Its tag says what it was made of: a page
   * that has it is told so, and nothing is made anew.
   */
  @Header('Cache-Control', 'private, no-cache')
  @Get()
  async all(
    @Me() me: SignedIn,
    @Req() request: Request,
    @Res({ passthrough: true }) response: Response,
  ): Promise<string | undefined> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      const stamp = `${this.content.bundle.version} ${me.userId} ${await stampOf(tx, MADE_OF)}`;
      const tag = `"${createHash('sha256').update(stamp).digest('base64url')}"`;
      response.setHeader('ETag', tag);
      if (request.get('if-none-match')?.includes(tag) === true) {
        response.status(304);
        return undefined;
      }
      response.type('application/json');
      return this.made(tag, () => this.make(tx, me));
    });
  }

  private async made(tag: string, make: () => Promise<object>): Promise<string> {
    const text = this.kept.get(tag) ?? JSON.stringify(await make());
    this.kept.delete(tag);
    this.kept.set(tag, text);
    for (const old of this.kept.keys()) {
      if (this.kept.size <= MOST_KEPT) break;
      this.kept.delete(old);
    }
    return text;
  }

  private async make(tx: Tx, me: SignedIn): Promise<object> {
    const library = await clinicLibrary(this.content.bundle, tx, me.userId);
    const reviews = await tx.find(ContentReview, { order: { version: 'ASC' } });
    const measures = await this.content.measuresFor(tx);
    const own = await tx.query<OwnRow[]>(
      'SELECT DISTINCT ON (key) key, version, filled, retired FROM clinic_measure ORDER BY key, version DESC',
    );
    const { languages, codes: _codes, ...bundle } = this.content.bundle;
    return {
      ...bundle,
      languages: languages.map(({ code, name, clinicians = false }) => ({ code, name, clinicians })),
      ...library,
      measures,
      own,
      reviews: Object.fromEntries(
        reviews.map((r) => [r.item, { reviewer: r.reviewer, on: r.reviewedOn, version: r.version }]),
      ),
    };
  }
}

@Controller('api/languages')
export class LanguageController {
  constructor(private readonly content: Content) {}

  /** Every text of a language, for the pages patients read; open, because a page is read before anyone has signed in. */
  @Open('anyone')
  @Header('Cache-Control', 'public, no-cache')
  @Get(':code')
  one(@Param('code') code: string): LanguageView {
    const language = this.content.languageOf(code);
    if (language === null) throw notFound();
    return language;
  }
}
