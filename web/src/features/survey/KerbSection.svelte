<script lang="ts">
  import type { Kerb, KerbClearance } from '../../api/api';
  import { pathOf } from '../../road/strip';
  import { tell } from '../../words/tell';

  let { kerb, clearance, height = 150 }: { kerb: Kerb; clearance: KerbClearance; height?: number } = $props();

  let width = $state(360);
  const ROAD = 0.55;
  const right = $derived(kerb.width + 0.5);
  const k = $derived(width / (right + ROAD));
  // Heights are drawn larger than widths: a kerb is a matter of centimetres.
  const up = $derived(Math.min(k * 2.2, (height - 34) / Math.max(0.18, kerb.height + 0.16)));
  const base = $derived(height - 22);
  const px = $derived((across: number) => (across + ROAD) * k);
  const py = $derived((metres: number) => base - metres * up);
  const section = $derived<[number, number][]>([
    [px(-ROAD), py(0)],
    [px(0), py(0)],
    ...clearance.section.map((p): [number, number] => [px(p.across), py(p.up)]),
  ]);
  const stance = $derived(clearance.vehicle);
  const cm = (m: number) => `${Math.round(m * 100)} cm`;
</script>

<div bind:clientWidth={width} class="w-full">
  <svg {width} {height} class="block" role="img" aria-label={tell('kerbSection.kerb_from_the_front')}>
    <path d={pathOf([...section, [px(right), height], [px(-ROAD), height]], true)} fill="var(--road-quiet)" />
    <path d={pathOf(section)} fill="none" stroke="var(--ink)" stroke-width="2" />
    <path d="M{px(0)} {py(0)}v10" stroke="var(--ink)" />
    <rect
      x={px(stance.tyreInner)}
      y={py(clearance.wheelRise) - 52}
      width={px(stance.tyreOuter) - px(stance.tyreInner)}
      height="52"
      rx="7"
      fill="var(--color-base-100)"
      stroke="var(--ink)"
      stroke-width="1.6"
    />
    {#if stance.floorEdge > -ROAD}
      <path
        d="M{px(-ROAD)} {py(stance.floorAtRoad)}L{px(stance.floorEdge)} {py(stance.floorAtEdge)}v-18H{px(-ROAD)}"
        fill="var(--throttle-fill)"
        stroke="var(--throttle)"
        stroke-width="1.6"
      />
      <text x="4" y={py(stance.floorAtRoad) - 5} style="font-size:11px">{tell('kerbSection.floor')}</text>
    {/if}
    {#if clearance.reach !== null && clearance.reach !== undefined}
      <path d="M{px(clearance.reach)} 20V{base + 10}" stroke="var(--turn)" stroke-dasharray="4 3" stroke-width="2" />
      <text x={Math.min(px(clearance.reach) + 4, width - 150)} y="14" font-weight="700" style="fill:var(--turn)"
        >{tell('kerbSection.and_no_further', { reach: cm(clearance.reach) })}</text
      >
    {/if}
    <text x={px(-ROAD) + 4} y={height - 6} style="font-size:11px">{tell('kerbSection.road')}</text>
    <text x="4" y="14" style="font-size:11px"
      >{tell('kerbSection.wide_high', { width: cm(kerb.width), height: cm(kerb.height) })}</text
    >
  </svg>
</div>
