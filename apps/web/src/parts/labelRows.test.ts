import fc from 'fast-check';
import { labelRows } from './labelRows.js';

describe('labels along a line', () => {
  it('stay in one row where there is room', () => {
    expect(
      labelRows(
        [
          { at: 0, width: 100 },
          { at: 100, width: 100 },
        ],
        1000,
      ),
    ).toEqual([
      { row: 0, at: 0 },
      { row: 0, at: 100 },
    ]);
  });

  it('go a row up where the one after would be touched, and back down after that', () => {
    const placed = labelRows(
      [
        { at: 0, width: 150 },
        { at: 120, width: 100 },
        { at: 160, width: 100 },
      ],
      1000,
    );
    const apart = labelRows(
      [
        { at: 0, width: 110 },
        { at: 120, width: 100 },
        { at: 160, width: 100 },
      ],
      1000,
    );
    expect(apart.map((p) => p.row)).toEqual([0, 1, 0]);
    expect(placed.map((p) => p.row)).toEqual([2, 1, 0]);
  });

  it('are moved left where they would run over the end', () => {
    expect(labelRows([{ at: 950, width: 100 }], 1000)).toEqual([{ row: 0, at: 900 }]);
  });

  it('never touch each other nor run over the end, wherever they stand', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.record({ at: fc.integer({ min: 0, max: 1000 }), width: fc.integer({ min: 1, max: 300 }) }),
          {
            maxLength: 8,
          },
        ),
        (some) => {
          const labels = [...some].sort((a, b) => a.at - b.at);
          const placed = labelRows(labels, 1000);
          placed.forEach((p, i) => {
            const width = labels[i]?.width ?? 0;
            expect(p.at).toBeGreaterThanOrEqual(0);
            expect(p.at + width).toBeLessThanOrEqual(1000);
            placed.slice(0, i).forEach((q, j) => {
              if (q.row !== p.row) return;
              const other = labels[j]?.width ?? 0;
              expect(p.at >= q.at + other || q.at >= p.at + width).toBe(true);
            });
          });
        },
      ),
    );
  });
});
