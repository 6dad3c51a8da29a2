import { say } from '@heathstep/core';
import { Link, useParams, useSearchParams } from 'react-router';
import { useContent } from '../../api/queries.js';
import { Failed, Loading, NotFound } from '../../parts/Waiting.js';
import { Export, FavouriteStar } from './Kept.js';
import { offered } from './libraryModel.js';
import { Sheet } from './Sheet.js';

/** One exercise with its moving figure, or two beside each other. */
export function Exercise() {
  const { key = '' } = useParams();
  const content = useContent();
  const [query, setQuery] = useSearchParams();
  if (content.data === undefined)
    return content.error === null ? (
      <Loading what={say('the exercise')} />
    ) : (
      <Failed error={content.error} again={() => void content.refetch()} />
    );
  const { exercises } = content.data;
  const exercise = exercises.find((e) => e.key === key);
  if (exercise === undefined) return <NotFound />;
  const other = exercises.find((e) => e.key === query.get('with') && e.key !== key);
  const own = content.data.ownExercises.find((o) => o.key === key);
  return (
    <main className="px-6 py-5 print:p-0">
      <div className="no-print flex flex-wrap items-center gap-x-5">
        <Link to="/library" className="text-action min-h-11 content-center">
          {say('All exercises')}
        </Link>
        <FavouriteStar exercise={exercise} on={content.data.favourites.includes(key)} />
        <div className="flex-1" />
        <label className="flex items-center gap-2">
          <span className="text-sm text-ink-2">{say('Compare with')}</span>
          <select
            className="field min-h-11 w-52"
            value={other?.key ?? ''}
            onChange={(e) => setQuery(e.target.value === '' ? {} : { with: e.target.value })}
          >
            <option value="">{say('nothing')}</option>
            {offered(content.data)
              .filter((e) => e.key !== key)
              .map((e) => (
                <option key={e.key} value={e.key}>
                  {e.name}
                </option>
              ))}
          </select>
        </label>
        {own === undefined ? (
          <Link to={`/library/new?from=${key}`} className="text-action min-h-11 content-center">
            {say('Adapt')}
          </Link>
        ) : (
          <Link to={`/library/${key}/edit`} className="text-action min-h-11 content-center">
            {say('Change')}
          </Link>
        )}
        <Export exercise={exercise} />
        <button type="button" className="text-action min-h-11" onClick={() => window.print()}>
          {say('Print')}
        </button>
        <Link to={`/library/${key}/teach`} className="action min-h-11">
          {say('Teach')}
        </Link>
      </div>
      <div className={other === undefined ? '' : 'grid grid-cols-2 gap-8'}>
        <Sheet exercise={exercise} content={content.data} wide={other === undefined} />
        {other !== undefined && <Sheet exercise={other} content={content.data} wide={false} />}
      </div>
    </main>
  );
}
