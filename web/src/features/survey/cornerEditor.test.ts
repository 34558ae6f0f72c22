// @vitest-environment jsdom
import { fireEvent, render, screen } from '@testing-library/svelte';
import { describe, expect, it, vi } from 'vitest';
import CornerEditor from './CornerEditor.svelte';
import { type Corner } from '../../api/api';
import type { SurveyDesk } from './survey.svelte';
import { corner, LENGTH } from '../../testing/made';

describe('the corner in the survey', () => {
  const three = [
    corner({ id: 'a', number: '1', entry: 500, apexes: [540], exit: 600 }),
    corner({ id: 'b', number: '2', left: false, entry: 700, apexes: [740], exit: 800 }),
    corner({ id: 'c', number: '3', entry: 1900, apexes: [1960], exit: 60 }),
  ];
  const editor = (which: number, corners: Corner[] = three) => {
    const arranged: Corner[][] = [];
    const desk = { corners, arrange: (c: Corner[]) => arranged.push(c) } as unknown as SurveyDesk;
    const onselect = vi.fn();
    render(CornerEditor, { desk, corner: corners[which] as Corner, length: LENGTH, onselect });
    return { arranged, onselect };
  };
  const press = (name: RegExp) => fireEvent.click(screen.getByRole('button', { name }));

  it('splits one corner into A and B that share a border', async () => {
    const { arranged } = editor(0);
    await press(/Split in two/);
    const [first, second] = arranged[0] as Corner[];
    expect([first?.number, second?.number]).toEqual(['1A', '1B']);
    expect(first?.exit).toBe(550);
    expect(second?.entry).toBe(550);
    expect(second?.exit).toBe(600);
    expect(second?.id).not.toBe(first?.id);
    expect(arranged[0]).toHaveLength(4);
  });

  it('gives each half of a double apex its own, across the line too', async () => {
    const double = [corner({ id: 'd', number: '9', entry: 1950, apexes: [1980, 40], exit: 90 })];
    const { arranged } = editor(0, double);
    await press(/Split in two/);
    const [first, second] = arranged[0] as Corner[];
    expect(first?.exit).toBe(10);
    expect([first?.apexes, second?.apexes]).toEqual([[1980], [40]]);
  });

  it('merges with the next: one apex each of the same side, none of both sides', async () => {
    const { arranged } = editor(0);
    await press(/Merge with 2/);
    expect(arranged[0]?.map((c) => c.id)).toEqual(['a', 'c']);
    expect(arranged[0]?.[0]).toMatchObject({ exit: 800, apexes: [] });
    const same = editor(2);
    await fireEvent.click(screen.getByRole('button', { name: 'Merge with 1' }));
    expect(same.arranged[0]?.find((c) => c.id === 'c')).toMatchObject({ exit: 600, apexes: [1960, 540] });
  });

  it('binds and frees a complex', async () => {
    const { arranged } = editor(0);
    await press(/Complex with 2/);
    expect(arranged[0]?.map((c) => c.complex)).toEqual([1, 1, 0]);
    const bound = three.map((c) => (c.id === 'c' ? c : { ...c, complex: 1 }));
    const freed = editor(0, bound);
    await press(/Take out of the complex/);
    expect(freed.arranged[0]?.map((c) => c.complex)).toEqual([0, 1, 0]);
  });

  it('numbers what counts from 1 on and leaves the kink out', async () => {
    const { arranged } = editor(
      0,
      three.map((c, i) => ({ ...c, number: '', uncounted: i === 1 })),
    );
    await press(/Number all from 1/);
    expect(arranged[0]?.map((c) => c.number)).toEqual(['1', '', '2']);
  });

  it('trims a name, sets two apexes, and goes to another corner', async () => {
    const { arranged, onselect } = editor(0);
    await fireEvent.change(screen.getByLabelText('Name'), { target: { value: '  Long bend ' } });
    expect(arranged.at(-1)?.[0]?.name).toBe('Long bend');
    await fireEvent.click(screen.getByLabelText('two apexes'));
    expect(arranged.at(-1)?.[0]?.apexes).toEqual([530, 570]);
    await press(/^3$/);
    expect(onselect).toHaveBeenCalledWith('c');
  });
});
