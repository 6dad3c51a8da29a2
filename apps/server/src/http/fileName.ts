import type { Request } from 'express';
import { plain } from '@heathstep/contracts';

/** What a file that is sent is called, for who looks for it later; its name comes as in an address. */
export function fileName(request: Request): string {
  try {
    return plain(decodeURIComponent(String(request.headers['x-file-name'] ?? ''))).slice(0, 120);
  } catch {
    return '';
  }
}
