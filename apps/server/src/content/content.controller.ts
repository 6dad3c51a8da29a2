import { Controller, Get, Header, Injectable } from '@nestjs/common';
import { type ContentBundle, loadContent, loadContentFrom } from '@heathstep/content';
import {
  type MeasureDefinition,
  NO_PROTOCOL,
  type ProtocolDefinition,
  type TissueDefinition,
} from '@heathstep/core';
import { Me, type SignedIn } from '../auth/auth.js';
import { Db, type Tx } from '../persistence/db.js';
import { ClinicProtocol, ContentReview } from '../persistence/entities.js';
import { Settings } from '../settings.js';
import { clinicLibrary, Library } from './library.js';
import { Protocols } from './protocols.js';

/** The shipped clinical content; the server does not start on bad content. */
@Injectable()
export class Content {
  readonly bundle: ContentBundle;

  constructor(settings: Settings) {
    const { contentRoot } = settings.config;
    const loaded = contentRoot === null ? loadContent() : loadContentFrom(contentRoot);
    if (!loaded.ok)
      throw new Error(`The clinical content has problems:\n${loaded.problems.map(String).join('\n')}`);
    this.bundle = loaded.content;
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
    return {
      ...this.content.bundle,
      ...library,
      measures,
      own,
      reviews: Object.fromEntries(
        reviews.map((r) => [r.item, { reviewer: r.reviewer, on: r.reviewedOn, version: r.version }]),
      ),
    };
  }
}
