<script lang="ts">
  import Slide from '../../kit/Slide.svelte';
  import type { Corner, ProposalLine } from '../../api/api';
  import { metres, plain, signed } from '../../words/units';
  import { cornerWord } from '../../words/words';

  /** One proposal: the laps it rests on as a picture, and what the driver makes of it. */
  interface Props {
    proposal: ProposalLine;
    corner: Corner;
    /** Metres that the driver accepts; null while it is not accepted. */
    accepted: number | null;
    mine: boolean;
    ondecide: (metres: number | null) => void;
    onlap: (lap: string) => void;
  }
  let { proposal: p, corner, accepted, mine, ondecide, onlap }: Props = $props();

  const W = 190;
  const H = 92;
  const xs = $derived([...p.late, 0, p.metres]);
  const lowX = $derived(Math.min(...xs) - 1);
  const highX = $derived(Math.max(...xs) + 1);
  const lowY = $derived(Math.min(...p.seconds));
  const highY = $derived(Math.max(...p.seconds, lowY + 0.05));
  const x = $derived((v: number) => 44 + ((v - lowX) / (highX - lowX)) * (W - 52));
  const y = $derived((v: number) => 10 + ((highY - v) / (highY - lowY)) * (H - 34));
  const way = $derived(p.metres > 0 ? 'later' : 'sooner');
</script>

<article
  class="border-base-300 grid grid-cols-[190px_minmax(0,1fr)] gap-3 border-t py-2"
  data-proposal="{p.corner}-{p.kind}"
>
  <svg width={W} height={H} role="img" aria-label="Time to the next corner against metres late, lap for lap">
    <path d="M{x(0)} 4V{H - 18}" stroke="var(--ink-soft)" stroke-dasharray="2 3" />
    <text x={x(0)} y={H - 5} text-anchor="middle" style="font-size:10px">flag</text>
    {#each p.late as late, i (p.evidence[i])}
      <!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_static_element_interactions -->
      <circle
        cx={x(late)}
        cy={y(p.seconds[i] ?? lowY)}
        r="3.2"
        fill="var(--ink)"
        opacity="0.65"
        class="cursor-pointer"
        onclick={() => onlap(p.evidence[i] ?? '')}
        ><title>{signed(late, 1)} m, {plain(p.seconds[i] ?? 0, 2)} s</title></circle
      >
    {/each}
    {#if p.change}
      {@const to = accepted ?? p.metres}
      <path
        d="M{x(0)} {H - 22}H{x(to)}m{to > 0 ? -5 : 5} -4l{to > 0 ? 5 : -5} 4l{to > 0 ? -5 : 5} 4"
        fill="none"
        stroke="var(--turn)"
        stroke-width="2"
      />
    {/if}
    <text x="2" y="9" style="font-size:10px;fill:var(--ink-soft)">slower</text>
    <text x="2" y={H - 24} style="font-size:10px;fill:var(--ink-soft)">quicker</text>
  </svg>
  <div class="grid content-start gap-0.5">
    <p class="font-bold">
      {cornerWord(corner)}: {p.point}
      {#if p.change}{metres(Math.abs(accepted ?? p.metres), 1)} {way}{:else}stays{/if}
    </p>
    <p class="leading-snug">{p.reason}</p>
    {#if p.change}
      <p class="text-sm">
        {#if p.gain !== null && p.gain !== undefined}
          promises {plain(p.gain * ((accepted ?? p.metres) / p.metres), 2)} s {#if p.gainLow !== null && p.gainHigh !== null}
            ({plain(p.gainLow ?? 0, 2)} to {plain(p.gainHigh ?? 0, 2)}){/if} ·
        {/if}
        evidence {p.strengthWords}, {p.laps} laps{p.limitedBy ? ` · step held by ${p.limitedBy}` : ''}
      </p>
      {#if mine}
        <div class="flex items-center gap-2">
          <button
            class={['btn btn-xs', accepted !== null ? 'btn-primary' : '']}
            aria-pressed={accepted !== null}
            onclick={() => ondecide(p.metres)}>Accept</button
          >
          {#if accepted !== null && Math.abs(p.metres) > 0.6}
            <span class="w-36">
              <Slide
                value={Math.abs(accepted)}
                min={0.5}
                max={Math.abs(p.metres)}
                step={0.5}
                label="Metres of the step"
                text={metres(Math.abs(accepted), 1)}
                oninput={(v) => ondecide(Math.sign(p.metres) * v)}
              />
            </span>
          {/if}
          <button class="btn btn-xs" disabled={accepted === null} onclick={() => ondecide(null)}>Decline</button>
        </div>
      {/if}
    {/if}
  </div>
</article>
