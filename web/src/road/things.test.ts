import { describe, expect, it } from 'vitest';
import { cornerAt, newKerb } from './things';

describe('things', () => {
  const c = (id: string, entry: number, exit: number) => ({
    id,
    number: id,
    name: '',
    left: true,
    entry,
    apexes: [(entry + exit) / 2],
    exit,
    radius: 40,
    doubt: 0,
    angle: 1,
    kind: 'BEND' as const,
    complex: 0,
    uncounted: false,
  });
  const corners = [c('a', 100, 140), c('b', 300, 20)];

  it('belong to the corner they are in, or to the next one', () => {
    expect(cornerAt(corners, 400, 120)?.id).toBe('a');
    expect(cornerAt(corners, 400, 200)?.id).toBe('b');
    expect(cornerAt(corners, 400, 10)?.id).toBe('b');
    expect(cornerAt(corners, 400, 60)?.id).toBe('a');
  });

  it('a kerb on the inside is an apex kerb; outside it is entry or exit', () => {
    expect(newKerb(110, 130, true, corners[0], 400).part).toBe('APEX');
    expect(newKerb(90, 105, false, corners[0], 400).part).toBe('ENTRY');
    expect(newKerb(140, 170, false, corners[0], 400).part).toBe('EXIT');
  });
});
