import { Controller, Get, Header, HttpStatus, Res } from '@nestjs/common';
import type { Response } from 'express';
import { Open } from '../auth/auth.js';
import { Db } from '../persistence/db.js';
import { Settings } from '../settings.js';

@Controller('api/health')
export class HealthController {
  constructor(
    private readonly db: Db,
    private readonly settings: Settings,
  ) {}

  /** Whether the process answers at all; whether it can work is told by the one below. */
  @Open('anyone')
  @Header('Cache-Control', 'no-store')
  @Get('live')
  live(): { status: string } {
    return { status: 'ok' };
  }

  @Open('anyone')
  @Header('Cache-Control', 'no-store')
  @Get()
  async health(
    @Res({ passthrough: true }) response: Response,
  ): Promise<{ status: string; database: string; version: string }> {
    const up = await this.db.ping();
    if (!up) response.status(HttpStatus.SERVICE_UNAVAILABLE);
    return {
      status: up ? 'ok' : 'failing',
      database: up ? 'ok' : 'unreachable',
      version: this.settings.config.version,
    };
  }
}
