import { type Forecast, forecast, type ForecastInput } from '@heathstep/core';

/** Forecasts each series it is sent; null where nothing can be said of one. */
self.onmessage = ({ data }: MessageEvent<readonly ForecastInput[]>) => {
  const made = data.map((input): Forecast | null => {
    const result = forecast(input);
    return result.ok && !('why' in result.value) ? result.value : null;
  });
  self.postMessage(made);
};
