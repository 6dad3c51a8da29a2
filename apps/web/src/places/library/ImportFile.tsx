import { useNavigate } from 'react-router';
import { ReadFile } from '../../parts/ReadFile.js';
import { keepDraft } from './editor/draft.js';

/** Takes an exercise file into the editor, where it is looked at before it is kept. */
export function ImportFile() {
  const navigate = useNavigate();
  return (
    <ReadFile
      word="Import"
      label="Exercise file"
      mostBytes={200_000}
      format="heathstep exercise"
      refusal="This file is not an exercise exported from here."
      take={(file) => {
        keepDraft({ id: crypto.randomUUID(), file });
        void navigate('/library/new?import=1');
      }}
    />
  );
}
