import { Controller, Get, Header, Injectable, Param } from '@nestjs/common';
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

@Controller('api/content')
export class ContentController {
  constructor(
    private readonly content: Content,
    private readonly db: Db,
  ) {}

  /** All content and this clinic's review status of its items. */
  @Header('Cache-Control', 'private, no-cache')
  @Get()
  async all(@Me() me: SignedIn): Promise<object> {
    const [library, reviews, measures, own] = await this.db.inClinic(me.clinicId, async (tx) => [
      await clinicLibrary(this.content.bundle, tx, me.userId),
      await tx.find(ContentReview, { order: { version: 'ASC' } }),
      await this.content.measuresFor(tx),
      await tx.query<OwnRow[]>(
        'SELECT DISTINCT ON (key) key, version, filled, retired FROM clinic_measure ORDER BY key, version DESC',
      ),
    ]);
    const { languages, ...bundle } = this.content.bundle;
    return {
      ...bundle,
      languages: languages.map(({ code, name }) => ({ code, name })),
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
