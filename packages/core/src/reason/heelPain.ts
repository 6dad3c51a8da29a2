import type { StoryFacts } from './story.js';

export interface HeelPainIdea {
  readonly rank: 'leading' | 'likely' | 'possible' | 'cannot-tell';
  readonly for: readonly string[];
  readonly against: readonly string[];
  readonly missing: readonly string[];
}

const has = (list: readonly string[] | undefined, item: string): boolean => list?.includes(item) === true;

function speaksFor(story: StoryFacts): string[] {
  const { firstStepPain, nowPain } = story;
  return [
    firstStepPain !== undefined && firstStepPain >= 1 && firstStepPain > (nowPain ?? 0)
      ? `first steps hurt ${firstStepPain}, more than now`
      : '',
    has(story.regions, 'heel-inner') ? 'pain at the inner heel' : '',
    has(story.worseWhen, 'end-of-day') || has(story.worseWhen, 'standing')
      ? 'worse after standing or at the end of the day'
      : '',
    (story.loadChange?.length ?? 0) > 0 && !has(story.loadChange, 'none') ? 'a recent change of load' : '',
    story.onset === 'gradual' ? 'came on gradually' : '',
  ].filter((r) => r !== '');
}

function speaksAgainst(story: StoryFacts): string[] {
  return [
    has(story.character, 'burning') || has(story.character, 'numb')
      ? 'burning or numbness points to a nerve'
      : '',
    has(story.regions, 'heel-centre') && !has(story.regions, 'heel-inner')
      ? 'centre of the heel points to the fat pad'
      : '',
    has(story.regions, 'heel-back') ? 'back of the heel points to the Achilles insertion' : '',
    has(story.character, 'both-heels-back-stiff')
      ? 'both heels with a stiff back in the morning points to an inflammatory cause'
      : '',
    story.onset === 'injury' ? 'began with an injury: look for bone and rupture first' : '',
  ].filter((r) => r !== '');
}

/**
 * A simple, stated rule for plantar heel pain: first-step pain and inner heel are the two main signs.
 * Both, and nothing against: leading. One more sign for than against: likely. Something for: possible.
 * A convention of ours, replaced when the full reasoning stands.
 */
export function judgeHeelPain(story: StoryFacts): HeelPainIdea {
  const pro = speaksFor(story);
  const contra = speaksAgainst(story);
  const missing = [
    story.firstStepPain === undefined ? 'first-step pain' : '',
    story.regions === undefined || story.regions.length === 0 ? 'where it hurts' : '',
    story.onset === undefined ? 'how it began' : '',
    story.character === undefined ? 'burning or numbness' : '',
  ].filter((m) => m !== '');
  const main = [pro.some((p) => p.startsWith('first steps')), pro.includes('pain at the inner heel')];
  const rank = (): HeelPainIdea['rank'] => {
    if (pro.length === 0) return 'cannot-tell';
    if (main.every(Boolean) && contra.length === 0) return 'leading';
    if (main.some(Boolean) && pro.length > contra.length + 1) return 'likely';
    return 'possible';
  };
  return { rank: rank(), for: pro, against: contra, missing };
}
