import { treatedSides, otherSide, type Affected, type Side } from '../quantity/side.js';
import { shown } from '../quantity/statistics.js';
import type { MeasuredFact } from '../progress/criteriaTypes.js';

export interface Driver {
  readonly key: 'ankle-stiff' | 'calf-short' | 'big-toe-stiff' | 'arch-weak' | 'calf-weak';
  readonly label: string;
  readonly side: Side;
  readonly because: string;
}

function latest(facts: readonly MeasuredFact[], measure: string, side: Side): number | null {
  const found = facts
    .filter((f) => f.measure === measure && f.side === side)
    .sort((a, b) => (a.at < b.at ? 1 : -1))[0];
  return found?.value ?? null;
}

/** What keeps it going, on the treated sides, by the thresholds of the measures. Missing values say nothing. */
export function findDrivers(facts: readonly MeasuredFact[], affected: Affected): Driver[] {
  return treatedSides(affected).flatMap((side): Driver[] => {
    const of = (measure: string) => latest(facts, measure, side);
    const deficit = (measure: string): number | null => {
      const other = affected === 'both' ? null : latest(facts, measure, otherSide(side));
      const own = of(measure);
      return own === null || other === null ? null : other - own;
    };
    const found: Driver[] = [];
    const bent = of('lunge-knee-bent');
    const bentDeficit = deficit('lunge-knee-bent');
    const straightDeficit = deficit('lunge-knee-straight');
    if ((bent !== null && bent < 35) || (bentDeficit !== null && bentDeficit > 5)) {
      const less =
        bentDeficit !== null && bentDeficit > 5 ? `, ${shown(bentDeficit)}° less than the other` : '';
      found.push({
        key: 'ankle-stiff',
        label: 'Ankle stiff',
        side,
        because: `lunge with the knee bent ${shown(bent ?? 0)}°${less}`,
      });
    }
    if (straightDeficit !== null && straightDeficit > 5 && bentDeficit !== null && bentDeficit <= 5) {
      found.push({
        key: 'calf-short',
        label: 'Calf short',
        side,
        because: `knee straight ${shown(straightDeficit)}° less than the other, knee bent within 5`,
      });
    }
    const toe = of('big-toe-extension');
    if (toe !== null && toe < 40)
      found.push({
        key: 'big-toe-stiff',
        label: 'Big toe stiff',
        side,
        because: `extension ${shown(toe)}°, under 40`,
      });
    const hold = of('foot-shortening-hold');
    if (hold !== null && hold < 10)
      found.push({
        key: 'arch-weak',
        label: 'Arch muscles weak',
        side,
        because: `foot shortening held ${shown(hold)} s, under 10`,
      });
    const raises = of('single-leg-heel-raise');
    const other = affected === 'both' ? null : latest(facts, 'single-leg-heel-raise', otherSide(side));
    const low = raises !== null && (raises < 20 || (other !== null && other > 0 && raises / other < 0.9));
    if (low)
      found.push({
        key: 'calf-weak',
        label: 'Calf weak',
        side,
        because: `${shown(raises)} single heel raises${other === null ? '' : `, ${shown(other)} on the other side`}`,
      });
    return found;
  });
}
