import { say } from '@heathstep/core';
import { useNavigate } from 'react-router';
import { ReadFile } from '../../parts/ReadFile.js';
import { keepDraft } from './editor/draft.js';

/** Whether a file has a part of its own under a name; the server looks at every field of it. */
const isPart = (file: object, name: string): boolean => {
  const part = (file as Record<string, unknown>)[name];
  return typeof part === 'object' && part !== null && !Array.isArray(part);
};

/** Takes an exercise file into the editor, where it is looked at before it is kept. */
export function ImportFile() {
  const navigate = useNavigate();
  return (
    <ReadFile
      word={say('Import')}
      label={say('Exercise file')}
      mostBytes={200_000}
      format="heathstep exercise"
      refusal={say('This file is not an exercise exported from here.')}
      fits={(file) => isPart(file, 'exercise') && isPart(file, 'figure')}
      take={(file) => {
        keepDraft({ id: crypto.randomUUID(), file });
        void navigate('/library/new?import=1');
      }}
    />
  );
}
