import { say } from '@heathstep/core';
import { useQuery } from '@tanstack/react-query';
import { Link, useParams } from 'react-router';
import type { LetterContent } from '@heathstep/contracts';
import { ApiError, request } from '../../api/client.js';
import { keys } from '../../api/queries.js';
import { Failed, Loading } from '../../parts/Waiting.js';
import { LetterSheet } from './LetterSheet.js';

/** The letter of a course on one page: of one that is closed the discharge, of one under way how it goes. */
export function CourseLetter() {
  const { episodeId = '' } = useParams();
  const letter = useQuery({
    queryKey: [...keys.course(episodeId), 'letter'],
    queryFn: () => request<LetterContent>('GET', `/api/episodes/${episodeId}/letter`),
    retry: (count, error) => error instanceof ApiError && error.passing && count < 4,
  });
  if (letter.data === undefined)
    return letter.error === null ? (
      <Loading what={say('the letter')} />
    ) : (
      <Failed error={letter.error} again={() => void letter.refetch()} />
    );
  return <Sheet letter={letter.data} episodeId={episodeId} />;
}

function Sheet({ letter, episodeId }: { letter: LetterContent; episodeId: string }) {
  return (
    <main className="mx-auto w-full max-w-[52rem] bg-paper px-10 py-8 max-sm:px-5 print:max-w-none print:bg-transparent print:p-0">
      <div className="no-print mb-6 flex flex-wrap gap-3">
        <button type="button" className="action" onClick={() => window.print()}>
          {say('Print')}
        </button>
        <a
          href={`/api/episodes/${episodeId}/letter.pdf`}
          target="_blank"
          rel="noreferrer"
          className="action-quiet"
        >
          {say('As a PDF')}
        </a>
        <Link to={`/episodes/${episodeId}/letters`} className="action-quiet">
          {say('Write a letter')}
        </Link>
        <Link to={`/episodes/${episodeId}/course`} className="action-quiet">
          {say('Back to the course')}
        </Link>
      </div>
      <LetterSheet letter={letter} level="h1" />
    </main>
  );
}
