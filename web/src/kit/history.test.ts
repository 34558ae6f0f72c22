import { describe, expect, it } from 'vitest';
import { History } from './history';

describe('undo and redo', () => {
  it('goes back and forth', () => {
    const h = new History<number>();
    h.remember(1);
    h.remember(2);
    expect(h.undo(3)).toBe(2);
    expect(h.undo(2)).toBe(1);
    expect(h.canUndo).toBe(false);
    expect(h.redo(1)).toBe(2);
    expect(h.redo(2)).toBe(3);
    expect(h.redo(3)).toBeNull();
  });

  it('takes a whole drag as one step', () => {
    const h = new History<number>();
    h.remember(0, 'drag');
    h.remember(1, 'drag');
    h.remember(2, 'drag');
    expect(h.undo(3)).toBe(0);
    h.settle();
    expect(h.canUndo).toBe(false);
  });

  it('forgets the future after a new change', () => {
    const h = new History<number>();
    h.remember(1);
    h.undo(2);
    h.remember(1);
    expect(h.canRedo).toBe(false);
  });

  it('forgets the oldest first', () => {
    const h = new History<number>(2);
    [1, 2, 3].forEach((v) => h.remember(v));
    expect(h.undo(4)).toBe(3);
    expect(h.undo(3)).toBe(2);
    expect(h.undo(2)).toBeNull();
  });
});
