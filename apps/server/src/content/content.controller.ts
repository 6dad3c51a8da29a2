import { Controller, Get, Header, Injectable } from '@nestjs/common';
import { type ContentBundle, loadContent } from '@heathstep/content';
import type { ExerciseDefinition, MeasureDefinition, ProtocolDefinition, Stage } from '@heathstep/core';
import { Me, type SignedIn } from '../auth/auth.js';
import { Db } from '../persistence/db.js';
import { ContentReview } from '../persistence/entities.js';

/** The shipped clinical content; the server does not start on bad content. */
@Injectable()
export class Content {
  readonly bundle: ContentBundle;

  constructor() {
    const loaded = loadContent();
    if (!loaded.ok)
      throw new Error(`The clinical content has problems:\n${loaded.problems.map(String).join('\n')}`);
    this.bundle = loaded.content;
  }

  readonly lookup = (key: string): MeasureDefinition | undefined =>
    this.bundle.measures.find((m) => m.key === key);

  exercise(key: string): ExerciseDefinition | undefined {
    return this.bundle.exercises.find((e) => e.key === key);
  }

  protocol(key: string): ProtocolDefinition {
    const found = this.bundle.protocols.find((p) => p.key === key);
    if (found === undefined) throw new Error(`There is no protocol ${key}`);
    return found;
  }

  stage(protocol: string, key: string): Stage | undefined {
    return this.protocol(protocol).stages.find((s) => s.key === key);
  }
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
    const reviews = await this.db.inClinic(me.clinicId, (tx) => tx.find(ContentReview));
    return {
      ...this.content.bundle,
      reviews: Object.fromEntries(
        reviews.map((r) => [r.item, { reviewer: r.reviewer, on: r.reviewedOn, version: r.version }]),
      ),
    };
  }
}
