import { useState } from 'react';
import {
  type CapturedValue,
  type CaptureWarning,
  DEVICE_MISTAKES,
  type DeviceKind,
  type DeviceMistake,
  type MeasureDefinition,
  shown,
  torqueOf,
  say,
  sayKey,
} from '@heathstep/core';
import { Ring, sideColour } from './Ring.js';
import { placeText } from './Stopwatch.js';
import type { ToolProps } from './Tool.js';
import { useDevice } from '../../../parts/useDevice.js';

const WARNINGS: Record<CaptureWarning, string> = {
  tilt: say('Tilted: hold it in line, nothing is taken'),
  'heel-lift': say('The heel has lifted, nothing is taken'),
  'late-trigger': say('The push began before the capture. Let go, and push again'),
  'drop-out': say('Readings were lost: starting over'),
  silent: say('The device says nothing. Nothing is taken'),
  rubbish: say('The device sent something unreadable: starting over'),
};

const UNITS: Record<DeviceKind, string> = { inclinometer: '°', dynamometer: 'N', thermometer: '°C' };

/** A device beside the trials: the live value large, taken by itself when it is steady, filling trials in turn. */
export function DevicePanel({
  measure,
  kind,
  base,
  place,
  keep,
  leverCm,
  bodyMassKg,
}: Pick<ToolProps, 'place'> & {
  measure: MeasureDefinition;
  kind: DeviceKind;
  base: string | null;
  keep: (value: number, heldBy: 'another' | 'self', simulated: boolean) => void;
  leverCm: number | null;
  bodyMassKg: number | null;
}) {
  const [last, setLast] = useState<CapturedValue | null>(null);
  const device = useDevice(
    base,
    kind,
    place === null ? null : { measure: measure.key, side: place.side },
    (value, state) => {
      if (place === null) return;
      setLast(value);
      keep(
        round(value.value, measure.decimals),
        state.hello?.heldBy ?? 'another',
        state.hello?.simulated === true,
      );
    },
  );
  const { link, state } = device;
  if (base === null) return <p className="text-sm text-ink-2">{say('No device service on this machine.')}</p>;
  if (link !== 'on') return <NotConnected device={device} kind={kind} />;
  const warning = state.warnings[0];
  return (
    <div className="flex items-center gap-4" role="group" aria-label={say('Device')}>
      <Ring share={state.steadiness} colour={sideColour(place?.side ?? 'none')}>
        {state.hello === null ? '' : <span aria-hidden>{state.steadiness > 0 ? '●' : '○'}</span>}
      </Ring>
      <div className="w-32 text-4xl font-bold leading-none" aria-label={say('Live value')}>
        {state.live === null ? '–' : shown(state.live, kind === 'dynamometer' ? 0 : 1)}
        <span className="text-base font-normal text-ink-2">{UNITS[kind]}</span>
      </div>
      <div className="min-w-0 flex-1 text-sm">
        <div className="font-semibold">
          {state.hello?.name ?? kind}, {placeText(place)}
        </div>
        <div role="status" className={warning === undefined ? 'text-ink-2' : 'font-semibold text-ease-deep'}>
          {warning !== undefined ? WARNINGS[warning] : place === null ? say('All trials taken') : help(kind)}
        </div>
        {state.hello?.simulated === true && (
          <div className="text-hold-deep">{say('Simulated: what it gives is marked so in the record')}</div>
        )}
        {state.hello?.heldBy === 'self' && (
          <div className="text-hold-deep">{say('Held by the patient: kept as measured by oneself')}</div>
        )}
        {last?.force != null && (
          <div className="text-ink-2">
            {say('peak {{peakN}} N, best second {{bestSecondN}} N, rise {{riseNPerS}} N/s', {
              peakN: shown(last.force.peakN, 0),
              bestSecondN: shown(last.force.bestSecondN, 0),
              riseNPerS: shown(last.force.riseNPerS, 0),
            })}
            {leverCm !== null && torqueText(last.force.bestSecondN, leverCm, bodyMassKg)}
          </div>
        )}
      </div>
      {state.hello?.simulated === true && <PlayMistake device={device} />}
      <button type="button" className="action-quiet" onClick={device.zero} disabled={state.live === null}>
        {say('Zero')}
      </button>
      <button type="button" className="text-action min-h-11 text-sm" onClick={device.disconnect}>
        {say('Disconnect')}
      </button>
    </div>
  );
}

type Device = ReturnType<typeof useDevice>;

function NotConnected({ device, kind }: { device: Device; kind: DeviceKind }) {
  const { link, state } = device;
  return (
    <div className="flex items-center gap-4 text-sm" role="group" aria-label={say('Device')}>
      <button
        type="button"
        className="action-quiet"
        disabled={link === 'connecting'}
        onClick={device.connect}
      >
        {link === 'connecting' ? say('Connecting') : say('Connect the {{kind}}', { kind: say(kind) })}
      </button>
      {link === 'failed' && (
        <span role="alert" className="text-ease-deep">
          {say('The device did not answer. Is it on, and its service started? Values can be typed.')}
        </span>
      )}
      {link === 'off' && state.phase === 'ended' && (
        <span role="alert" className="text-ease-deep">
          {say('Disconnected: {{endReason}}. Only what was taken before is kept.', {
            endReason: state.endReason ?? '',
          })}
        </span>
      )}
    </div>
  );
}

/** A simulated device can go wrong on purpose. */
function PlayMistake({ device }: { device: Device }) {
  return (
    <label className="text-xs text-ink-2">
      {say('play a mistake')}
      <select
        className="block min-h-9 w-28 border-b border-edge bg-transparent"
        defaultValue=""
        onChange={(e) => device.play(e.target.value === '' ? [] : [e.target.value as DeviceMistake])}
      >
        <option value="">{say('none')}</option>
        {DEVICE_MISTAKES.map((m) => (
          <option key={m} value={m}>
            {sayKey(m)}
          </option>
        ))}
      </select>
    </label>
  );
}

const help = (kind: DeviceKind): string =>
  kind === 'dynamometer'
    ? say('Push and hold; it is kept as you let go')
    : say('Hold still for a second; it is kept by itself');

function torqueText(newton: number, leverCm: number, mass: number | null): string {
  const { nm, nmPerKg } = torqueOf(newton, leverCm, mass);
  return say(', {{nm}} Nm{{words}}', {
    nm: shown(nm),
    words: nmPerKg === null ? '' : say(', {{nmPerKg}} Nm/kg', { nmPerKg: shown(nmPerKg, 2) }),
  });
}

const round = (value: number, decimals: number): number => Number(value.toFixed(decimals));
