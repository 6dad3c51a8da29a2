import { loadContent } from '@heathstep/content';
import type { ClinicContent } from '../../../api/queries.js';
import { questionAdded, schoolAdded, slotMoved, withStage } from './protocolEdit.js';
import { changesBetween, stageSections } from './protocolLines.js';

const loaded = loadContent();
if (!loaded.ok) throw new Error(loaded.problems.join('\n'));
const content = loaded.content as unknown as ClinicContent;
const { protocols } = loaded.content;
const [protocol] = protocols;
if (protocol === undefined) throw new Error('no protocol');
const [first] = protocol.stages;
if (first === undefined) throw new Error('no stage');

describe('a protocol in words', () => {
  it.each(protocols.map((p) => [p.key, p] as const))(
    '%s has lines under every heading, and no key in them',
    (_key, p) => {
      for (const stage of p.stages)
        for (const section of stageSections(stage, p, content)) {
          expect(section.lines.length).toBeGreaterThan(0);
          for (const line of section.lines) {
            expect(line.length).toBeGreaterThan(2);
            expect(line).not.toMatch(/undefined|\[object|not in the library/);
          }
        }
    },
  );

  it('says of a slot that waits for a finding which one', () => {
    const found = protocols.find((p) => p.conditions.length === 0);
    const lines = (found?.stages ?? [])
      .flatMap((s) => stageSections(s, found ?? protocol, content))
      .flatMap((s) => s.lines);
    expect(lines.filter((l) => l.includes('Only where found: calf short')).length).toBeGreaterThan(0);
  });
});

describe('two versions compared', () => {
  it('are the same as themselves', () => {
    for (const p of protocols) expect(changesBetween(p, p, content)).toEqual([]);
  });

  it('show a changed number as the line that went and the one that came, under its heading', () => {
    const next = withStage(protocol, first.key, { minimumDays: 41 });
    expect(changesBetween(protocol, next, content)).toEqual([
      {
        stage: first.name,
        title: 'Time',
        gone: [`At least ${first.minimumDays} days`],
        come: ['At least 41 days'],
      },
    ]);
  });

  it('show an exercise taken out as gone, and back again as come', () => {
    const next = withStage(protocol, first.key, { slots: first.slots.slice(1) });
    const [change] = changesBetween(protocol, next, content);
    expect([change?.gone.length, change?.come]).toEqual([1, []]);
    const [back] = changesBetween(next, protocol, content);
    expect(back?.come).toEqual(change?.gone);
  });

  it('show a stage that is no more, and one that is new', () => {
    const less = { ...protocol, stages: protocol.stages.slice(1) };
    expect(new Set(changesBetween(protocol, less, content).map((c) => c.stage))).toEqual(
      new Set([first.name]),
    );
    expect(changesBetween(less, protocol, content).every((c) => c.gone.length === 0)).toBe(true);
  });

  it('show what holds for all stages: a question at home, a choice and its usual way', () => {
    const asked = { ...protocol, home: questionAdded(protocol.home) };
    expect(changesBetween(protocol, asked, content)).toEqual([
      {
        stage: 'All stages',
        title: 'Asked at home',
        gone: [],
        come: ['swelling: Did it swell today? (morning, yes-no, by criteria)'],
      },
    ]);
    const chosen = { ...protocol, schools: schoolAdded(protocol.schools) };
    const [change] = changesBetween(protocol, chosen, content);
    expect(change?.title).toBe('Chosen for each person');
    expect(change?.come).toHaveLength(2);
    expect(change?.come.filter((l) => l.includes('where nobody chose'))).toHaveLength(1);
  });

  it('show another order of importance', () => {
    const next = withStage(protocol, first.key, { slots: slotMoved(first.slots, 0, 1) });
    expect(changesBetween(protocol, next, content).map((c) => c.title)).toEqual([
      'Filled with, most important first',
    ]);
  });
});
