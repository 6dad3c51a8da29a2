import type { ApiError } from '../../../api/client.js';

/** What an answer says of a field and of what lies in it. */
export const errorsAt = (error: ApiError | null, pointer: string): string | null =>
  error?.problem.errors?.find((e) => e.pointer === pointer || e.pointer.startsWith(`${pointer}/`))?.detail ??
  null;
