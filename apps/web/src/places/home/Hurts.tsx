import { useState } from 'react';
import type { HomeView, StopPayload } from '@heathstep/contracts';
import { acheMeans, PAIN_ALL_RIGHT, type StopSign, type Tongue } from '@heathstep/core';
import type { Delivery } from './homeStore.js';
import { ElevenKeys, Title } from './pieces.js';
import { useReader } from './tongue.js';

interface HurtsProps {
  readonly clinic: HomeView['clinic'];
  readonly signs: HomeView['stopSigns'];
  readonly school: HomeView['painSchool'];
  /** Pain before the start, where an exercise is under way; null where none is. */
  readonly before: number | null;
  /** Where the report is; the clinic was told only when it has arrived. */
  readonly delivery: Delivery;
  readonly report: (payload: Pick<StopPayload, 'grade' | 'sign'>) => void;
  readonly back: () => void;
  readonly toList: () => void;
}

const ofGrade = (signs: HomeView['stopSigns'], grade: StopSign): HomeView['stopSigns'] =>
  signs.filter((s) => s.grade === grade);

/** Said only when it is so. */
function deliveryText(delivery: Delivery, phone: string, t: Tongue): string {
  switch (delivery) {
    case 'told':
      return t.say('Your clinic has been told.');
    case 'sending':
      return t.say('Telling your clinic.');
    case 'kept':
      return t.say('Your clinic has not been told yet: there is no connection. Please call {{phone}}.', {
        phone,
      });
    case 'refused':
      return t.say('Your clinic could not be told from here. Please call {{phone}}.', { phone });
  }
}

/** Three grades, the most serious first; shown at once, with or without a connection. */
export function Hurts({ clinic, signs, school, before, delivery, report, back, toList }: HurtsProps) {
  const t = useReader();
  const [told, setTold] = useState<StopPayload['grade'] | null>(null);
  const tell = (grade: StopPayload['grade'], sign: string) => {
    report({ grade, sign });
    setTold(grade);
  };
  if (told === 'emergency') return <CallNow {...{ clinic, delivery, toList }} />;
  if (told === 'review') return <StopForToday {...{ clinic, delivery, toList }} />;
  return (
    <div className="flex flex-1 flex-col px-5 pb-6 pt-8">
      <Title>{t.say('What do you feel?')}</Title>
      <Group
        title={t.say('Get help at once')}
        className="bg-ease text-paper"
        signs={ofGrade(signs, 'emergency')}
        choose={(s) => tell('emergency', s)}
      />
      <Group
        title={t.say('Stop for today')}
        className="bg-ease-wash text-ease-deep"
        signs={ofGrade(signs, 'review')}
        choose={(s) => tell('review', s)}
      />
      <Group
        title={t.say('End this exercise only')}
        className="bg-hold-wash text-hold-deep"
        signs={ofGrade(signs, 'pause')}
        choose={(s) => tell('pause', s)}
      />
      {before !== null && (
        <Ache
          school={school}
          before={before}
          phone={clinic.phone}
          end={(n) => tell('pause', `Pain ${n} of 10 during the exercise`)}
          back={back}
        />
      )}
      <p className="mt-6 text-base">{t.say(PAIN_ALL_RIGHT[school])}</p>
      <button type="button" className="action-quiet mt-5 min-h-14 text-lg" onClick={back}>
        {t.say('None of these, go on')}
      </button>
    </div>
  );
}

/** An ordinary ache, by the pain rule: it goes on where it stood, goes on with less, or ends this exercise. */
function Ache({
  school,
  before,
  phone,
  end,
  back,
}: {
  school: HomeView['painSchool'];
  before: number;
  phone: string;
  end: (pain: number) => void;
  back: () => void;
}) {
  const t = useReader();
  const [pain, setPain] = useState<number | null>(null);
  const means = pain === null ? null : acheMeans(school, before, pain);
  return (
    <section className="mt-5" aria-label={t.say('An ordinary ache')}>
      <h2>{t.say('An ordinary ache')}</h2>
      <p className="text-base">{t.say('How much is it now, 0 none to 10 worst?')}</p>
      <ElevenKeys
        label={t.say('An ordinary ache')}
        nameOf={(n) => t.say('Ache {{n}}', { n })}
        wordOf={null}
        value={pain}
        onChange={setPain}
      />
      <div role="status" className="mt-3">
        {means === 'all-right' && <p>{t.say('That is all right.')}</p>}
        {means === 'less' && (
          <p className="text-hold-deep">
            {t.say('That is as much as it should be. Make it smaller, slower or fewer.')}
          </p>
        )}
        {means === 'too-much' && (
          <p className="text-ease-deep">
            {t.say(
              'That is too much for this exercise today. Tell your clinic if it is the same tomorrow: {{phone}}.',
              { phone },
            )}
          </p>
        )}
      </div>
      {means !== null && pain !== null && (
        <button
          type="button"
          className="action mt-3 min-h-14 w-full text-lg"
          onClick={means === 'too-much' ? () => end(pain) : back}
        >
          {t.say(means === 'too-much' ? 'End this exercise' : 'Go on')}
        </button>
      )}
    </section>
  );
}

/** What the clinic says beside its numbers, in its own words. */
const Said = ({ text }: { text: string | undefined }) =>
  text === undefined || text === '' ? null : (
    <p className="mt-3 text-lg" data-said-by-others="">
      {text}
    </p>
  );

type Reported = Pick<HurtsProps, 'clinic' | 'delivery' | 'toList'>;

/** After a sign of the gravest grade: nothing but the number to call. */
function CallNow({ clinic, delivery, toList }: Reported) {
  const t = useReader();
  return (
    <div className="flex flex-1 flex-col bg-ease px-5 py-10 text-paper" role="alert">
      <Title className="text-4xl">{t.say('Stop. Call now.')}</Title>
      <p className="mt-4 text-xl">
        {t.say('Call {{number}}. Do not go on with the exercises.', { number: clinic.emergencyNumber })}
      </p>
      <Said text={clinic.emergency} />
      <p className="mt-3 text-lg" role="status">
        {deliveryText(delivery, clinic.phone, t)}
      </p>
      <a
        className="mt-6 flex min-h-16 items-center justify-center rounded-xl bg-paper text-xl font-bold text-ease-deep"
        href={`tel:${clinic.emergencyNumber}`}
      >
        {t.say('Call {{number}}', { number: clinic.emergencyNumber })}
      </a>
      <div className="flex-1" />
      <button type="button" className="min-h-12 underline" onClick={toList}>
        {t.say('Close')}
      </button>
    </div>
  );
}

/** After a sign that ends the day: whom to call, and whether the clinic knows. */
function StopForToday({ clinic, delivery, toList }: Reported) {
  const t = useReader();
  return (
    <div className="flex flex-1 flex-col px-5 py-10" role="alert">
      <Title>{t.say('Stop for today')}</Title>
      <p className="mt-4">
        {t.say(
          'Do no more exercises until your clinic has spoken with you. If it gets worse, do not wait: call.',
        )}
      </p>
      <p className="mt-3 font-semibold" role="status">
        {deliveryText(delivery, clinic.phone, t)}
      </p>
      <a className="action mt-5 min-h-16 w-full text-xl" href={`tel:${clinic.phone.replace(/\s/g, '')}`}>
        {`${t.say('Call your clinic,')} ${clinic.phone}`}
      </a>
      <Said text={clinic.contact} />
      <div className="flex-1" />
      <button type="button" className="text-action min-h-12" onClick={toList}>
        {t.say('Close')}
      </button>
    </div>
  );
}

function Group({
  title,
  className,
  signs,
  choose,
}: {
  title: string;
  className: string;
  signs: HomeView['stopSigns'];
  choose: (sign: string) => void;
}) {
  return (
    <section className="mt-5" aria-label={title}>
      <h2>{title}</h2>
      <div className="mt-2 grid grid-cols-2 gap-2">
        {signs.map((sign) => (
          <button
            key={sign.text}
            type="button"
            className={`min-h-14 rounded-xl px-3 py-2 text-left text-base font-bold leading-tight ${className}`}
            onClick={() => choose(sign.text)}
          >
            {sign.shown}
          </button>
        ))}
      </div>
    </section>
  );
}
