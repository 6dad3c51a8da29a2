import type { ReactNode } from 'react';
import { useParams } from 'react-router';
import type { CourseView } from '@heathstep/contracts';
import { type ClinicContent, useContent, useCourse } from '../api/queries.js';
import { Failed, Loading } from './Waiting.js';

/** A place of one episode, as soon as its course and the content are there; till then that it loads, or why it cannot. */
export function OfEpisode({
  what,
  children,
}: {
  what: string;
  children: (course: CourseView, content: ClinicContent) => ReactNode;
}) {
  const { episodeId = '' } = useParams();
  const course = useCourse(episodeId);
  const content = useContent();
  if (course.data !== undefined && content.data !== undefined) return children(course.data, content.data);
  const error = course.error ?? content.error;
  if (error === null) return <Loading what={what} />;
  return <Failed error={error} again={() => void Promise.all([course.refetch(), content.refetch()])} />;
}
