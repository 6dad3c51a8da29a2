export {
  type Forecast,
  forecast,
  type ForecastInput,
  FEWEST_POINTS,
  HORIZON_DAYS,
  type NoForecast,
} from './forecast.js';
export {
  criteriaAhead,
  type CriterionAhead,
  lastOf,
  leavesOf,
  openAhead,
  seedOf,
  type SeriesAhead,
} from './criteria.js';
export { type Slip, slipOf } from './slip.js';
export { stageAhead, type StageAhead, type When } from './stage.js';
