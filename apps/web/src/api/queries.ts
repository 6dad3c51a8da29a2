import { showTimesIn } from '../parts/dates.js';
import { QueryClient, useInfiniteQuery, useQuery, type UseQueryResult } from '@tanstack/react-query';
import type { ContentBundle } from '@heathstep/content';
import type {
  BandView,
  CourseView,
  DayView,
  NoteView,
  OwnExerciseView,
  OwnMeasureBody,
  OwnRoutineView,
  PersonRow,
  PhotoView,
  SessionView,
} from '@heathstep/contracts';
import { spokenContent } from '@heathstep/contracts/content';
import { spoken } from '@heathstep/core';
import { pageLanguage } from '../parts/language.js';
// Of the views alone: the rules of what is sent need not be there before the first page is.
import { PEOPLE_AT_ONCE } from '@heathstep/contracts/views';
import { ApiError, request } from './client.js';

export const queryClient = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 0,
      retry: (count, error) => error instanceof ApiError && error.passing && count < 4,
      retryDelay: (attempt) => Math.min(500 * 2 ** attempt, 5000),
      networkMode: 'always',
    },
    mutations: { networkMode: 'always' },
  },
});

interface Reviews {
  readonly [item: string]: { readonly reviewer: string; readonly on: string; readonly version: number };
}

/** A measure of the clinic's own as it was filled in. */
export interface OwnMeasureRow {
  readonly key: string;
  readonly version: number;
  readonly filled: OwnMeasureBody;
  readonly retired: boolean;
}

export type ClinicContent = Omit<ContentBundle, 'languages'> & {
  /** What patients can read in beside English. */
  readonly languages: readonly {
    readonly code: string;
    readonly name: string;
    /** Clinicians too. */
    readonly clinicians?: boolean;
  }[];
  readonly reviews: Reviews;
  readonly own: readonly OwnMeasureRow[];
  readonly ownExercises: readonly OwnExerciseView[];
  readonly ownRoutines: readonly OwnRoutineView[];
  /** Of the person signed in. */
  readonly favourites: readonly string[];
  readonly notes: Readonly<Record<string, NoteView | undefined>>;
  readonly bands: readonly BandView[];
};

export const keys = {
  session: ['session'] as const,
  content: ['content'] as const,
  day: ['day'] as const,
  people: (q: string) => ['people', q] as const,
  person: (id: string) => ['person', id] as const,
  photos: (id: string) => ['photos', id] as const,
  course: (id: string) => ['course', id] as const,
  /** All of them, and with it each one. */
  protocols: ['protocols'] as const,
  protocol: (key: string) => ['protocols', key] as const,
};

export const useSession = (): UseQueryResult<SessionView> =>
  useQuery({
    queryKey: keys.session,
    queryFn: async () => {
      const session = await request<SessionView>('GET', '/api/session');
      showTimesIn(session.clinic.timeZone);
      return session;
    },
    staleTime: 60_000,
    retry: (n, e) => e instanceof ApiError && e.passing && n < 4,
  });

export const contentQuery = {
  queryKey: keys.content,
  queryFn: async () => {
    const content = await request<ClinicContent>('GET', '/api/content');
    return pageLanguage === null ? content : spokenContent(content, spoken());
  },
  staleTime: Infinity,
};

export const useContent = (): UseQueryResult<ClinicContent> => useQuery(contentQuery);

export const useDay = (): UseQueryResult<DayView> =>
  useQuery({
    queryKey: keys.day,
    queryFn: () => request<DayView>('GET', '/api/day'),
    staleTime: 0,
    // A long day is worked out in parts: the next part is asked for soon.
    refetchInterval: (query) => ((query.state.data?.pending ?? 0) > 0 ? 1_000 : 30_000),
  });

/** People found, so many at once; `fetchNextPage` brings those after them. */
export const usePeople = (q: string, enabled = true) =>
  useInfiniteQuery({
    enabled,
    queryKey: keys.people(q),
    queryFn: ({ pageParam }) =>
      request<PersonRow[]>(
        'GET',
        `/api/people?${new URLSearchParams({ q, after: String(pageParam) }).toString()}`,
      ),
    initialPageParam: 0,
    getNextPageParam: (last, pages) =>
      last.length < PEOPLE_AT_ONCE ? undefined : pages.length * PEOPLE_AT_ONCE,
    placeholderData: (before) => before,
  });

export const usePerson = (id: string): UseQueryResult<PersonRow> =>
  useQuery({ queryKey: keys.person(id), queryFn: () => request<PersonRow>('GET', `/api/people/${id}`) });

/** A protocol as its clinicians read it; for what is shown, never for what is written. */
export const spokenProtocol = <P extends object>(protocol: P): P =>
  pageLanguage === null ? protocol : spokenContent({ protocols: protocol }, spoken()).protocols;

/** What the course has of protocols and stages, as clinicians read it. */
function spokenCourse(course: CourseView): CourseView {
  if (pageLanguage === null) return course;
  return {
    ...course,
    protocol: spokenProtocol(course.protocol),
    episode: {
      ...course.episode,
      safety: spokenContent({ safetyRules: course.episode.safety }, spoken()).safetyRules,
      plan:
        course.episode.plan === null
          ? null
          : { ...course.episode.plan, madeOf: spokenProtocol(course.episode.plan.madeOf) },
    },
    plans: course.plans.map((plan) => ({ ...plan, madeOf: spokenProtocol(plan.madeOf) })),
  };
}

const courseQuery = (episodeId: string) => ({
  queryKey: keys.course(episodeId),
  queryFn: () => request<CourseView>('GET', `/api/episodes/${episodeId}/course`),
  select: spokenCourse,
});

export const useCourse = (episodeId: string): UseQueryResult<CourseView> =>
  useQuery({ ...courseQuery(episodeId), enabled: episodeId !== '' });

export const usePhotos = (episodeId: string): UseQueryResult<PhotoView[]> =>
  useQuery({
    queryKey: keys.photos(episodeId),
    queryFn: () => request<PhotoView[]>('GET', `/api/episodes/${episodeId}/photos`),
  });
