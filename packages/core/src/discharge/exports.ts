export { type ChartLine, type ChartPoint, chartSvg, roundScale } from './chart.js';
export { type FirstToLast, firstToLast, type TakenOn } from './firstToLast.js';
export { ownActivities } from './ownActivities.js';
export { QUIET_DAYS, type UpkeepEnd, upkeepEnd } from './upkeepEnd.js';
export { weeklyMeans } from './weekly.js';
