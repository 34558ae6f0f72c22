<script lang="ts">
  import type { Corner, CornerFinding } from '../../api/api';
  import { lapAcross, middleOf } from '../../road/strip';
  import { plain } from '../../words/units';
  import { tell } from '../../words/tell';

  /** Seconds on offer, corner by corner, under the lap strip; what has a habit is filled. */
  interface Props {
    findings: CornerFinding[];
    corners: Corner[];
    length: number;
    selected: string;
    onselect: (corner: string) => void;
  }
  let { findings, corners, length, selected, onselect }: Props = $props();
  const PAD = 14;
  const H = 150;
  let width = $state(1000);
  const most = $derived(Math.max(0.2, ...findings.map((f) => f.offer)));
  const across = $derived(lapAcross(corners, length, width));
  const bars = $derived(
    findings.flatMap((f) => {
      const c = corners.find((k) => k.id === f.corner);
      if (!c) return [];
      return [{ f, c, x: across(middleOf(c, length)), h: (f.offer / most) * (H - 62) }];
    }),
  );
  function onkeydown(event: KeyboardEvent, corner: string) {
    if (event.key === 'Enter' || event.key === ' ') {
      event.preventDefault();
      onselect(corner);
    }
  }
</script>

<div bind:clientWidth={width} class="w-full">
  <svg
    {width}
    height={H}
    class="block select-none"
    role="group"
    aria-label={tell('offerLane.seconds_on_offer_by_corner')}
  >
    <text x={PAD} y="14" style="fill:var(--ink-soft)">{tell('offerLane.seconds_on_offer_filled_where')}</text>
    <path d="M{PAD} {H - 20}H{width - PAD}" stroke="var(--ink-soft)" />
    {#each bars as b (b.c.id)}
      <g
        role="button"
        tabindex="0"
        class="cursor-pointer"
        aria-label={tell('offerLane.corner_s_on_offer', { number: b.c.number, offer: plain(b.f.offer, 2) })}
        data-offer={b.c.id}
        onclick={() => onselect(b.c.id)}
        onkeydown={(e) => onkeydown(e, b.c.id)}
      >
        <rect
          class="focus-ring"
          x={b.x - 17}
          y="18"
          width="34"
          height={H - 20}
          fill="transparent"
          stroke="none"
          rx="3"
        />
        <rect
          x={b.x - 9}
          y={H - 20 - b.h}
          width="18"
          height={Math.max(1, b.h)}
          fill={b.f.habits.length ? 'var(--ink)' : 'var(--color-base-100)'}
          stroke="var(--ink)"
        />
        {#if b.f.offer >= 0.02}
          <text x={b.x} y={H - 25 - b.h} text-anchor="middle" style="font-size:11px">{plain(b.f.offer, 2)}</text>
        {/if}
        <text x={b.x} y={H - 5} text-anchor="middle" font-weight={selected === b.c.id ? 800 : 400}>{b.c.number}</text>
      </g>
    {/each}
  </svg>
</div>
