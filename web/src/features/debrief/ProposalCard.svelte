<script lang="ts">
  import Slide from '../../kit/Slide.svelte';
  import type { Corner, ProposalLine } from '../../api/api';
  import { metres, plain, signed } from '../../words/units';
  import { cornerWord } from '../../words/words';
  import { tell } from '../../words/tell';

  /** One proposal: the laps it rests on as a picture, and what the driver makes of it. */
  interface Props {
    proposal: ProposalLine;
    corner: Corner;
    /** Metres, or share, that the driver accepts; null while it is not accepted. */
    accepted: number | null;
    mine: boolean;
    ondecide: (by: number | null) => void;
    onlap: (lap: string) => void;
  }
  let { proposal: p, corner, accepted, mine, ondecide, onlap }: Props = $props();

  const W = 190;
  const H = 92;
  const xs = $derived([...p.off, 0, p.by]);
  const around = $derived(p.share ? 0.01 : 1);
  const lowX = $derived(Math.min(...xs) - around);
  const highX = $derived(Math.max(...xs) + around);
  const lowY = $derived(Math.min(...p.seconds));
  const highY = $derived(Math.max(...p.seconds, lowY + 0.05));
  const x = $derived((v: number) => 44 + ((v - lowX) / (highX - lowX)) * (W - 52));
  const y = $derived((v: number) => 10 + ((highY - v) / (highY - lowY)) * (H - 34));
  const way = $derived(
    p.share
      ? p.by > 0
        ? tell('proposalCard.more')
        : tell('proposalCard.less')
      : p.by > 0
        ? tell('proposalCard.later')
        : tell('proposalCard.sooner'),
  );
  const step = $derived((by: number) => (p.share ? `${plain(100 * Math.abs(by), 0)} %` : metres(Math.abs(by), 1)));
  const least = $derived(p.share ? 0.01 : 0.5);
  const off = $derived((by: number) => (p.share ? `${signed(100 * by, 0)} %` : `${signed(by, 1)} m`));
</script>

<article
  class="border-base-300 grid grid-cols-[190px_minmax(0,1fr)] gap-3 border-t py-2"
  data-proposal="{p.corner}-{p.action}{p.share ? '-share' : ''}"
>
  <svg
    width={W}
    height={H}
    role="img"
    aria-label={tell('proposalCard.time_to_the_next_corner', { hasShare: !!p.share })}
  >
    <path d="M{x(0)} 4V{H - 18}" stroke="var(--ink-soft)" stroke-dasharray="2 3" />
    <text x={x(0)} y={H - 5} text-anchor="middle" style="font-size:10px"
      >{tell('proposalCard.written_flag', { hasShare: !!p.share })}</text
    >
    {#each p.off as by, i (p.evidence[i])}
      <!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_static_element_interactions -->
      <circle
        cx={x(by)}
        cy={y(p.seconds[i] ?? lowY)}
        r="3.2"
        fill="var(--ink)"
        opacity="0.65"
        class="cursor-pointer"
        onclick={() => onlap(p.evidence[i] ?? '')}><title>{off(by)}, {plain(p.seconds[i] ?? 0, 2)} s</title></circle
      >
    {/each}
    {#if p.change}
      {@const to = accepted ?? p.by}
      <path
        d="M{x(0)} {H - 22}H{x(to)}m{to > 0 ? -5 : 5} -4l{to > 0 ? 5 : -5} 4l{to > 0 ? -5 : 5} 4"
        fill="none"
        stroke="var(--turn)"
        stroke-width="2"
      />
    {/if}
    <text x="2" y="9" style="font-size:10px;fill:var(--ink-soft)">{tell('proposalCard.slower')}</text>
    <text x="2" y={H - 24} style="font-size:10px;fill:var(--ink-soft)">{tell('proposalCard.quicker')}</text>
  </svg>
  <div class="grid content-start gap-0.5">
    <p class="font-bold">
      {cornerWord(corner)}: {p.what}
      {#if p.change}{step(accepted ?? p.by)} {way}{:else}{tell('proposalCard.stays')}{/if}
    </p>
    <p class="leading-snug">{p.reason}</p>
    {#if p.change}
      <p class="text-sm">
        {#if p.gain !== null && p.gain !== undefined}
          {tell('proposalCard.promises_s', { by: plain(p.gain * ((accepted ?? p.by) / p.by), 2) })}
          {#if p.gainLow !== null && p.gainHigh !== null}
            {tell('proposalCard.to', { gainLow: plain(p.gainLow ?? 0, 2), gainHigh: plain(p.gainHigh ?? 0, 2) })}{/if} ·
        {/if}
        {tell('proposalCard.evidence_laps_step_held_by', {
          strengthWords: p.strengthWords,
          laps: p.laps,
          hasLimitedBy: !!p.limitedBy,
          limitedBy: p.limitedBy,
        })}
      </p>
      {#if mine}
        <div class="flex items-center gap-2">
          <button
            class={['btn btn-xs', accepted !== null ? 'btn-primary' : '']}
            aria-pressed={accepted !== null}
            onclick={() => ondecide(p.by)}>{tell('proposalCard.accept')}</button
          >
          {#if accepted !== null && Math.abs(p.by) > 1.2 * least}
            <span class="w-36">
              <Slide
                value={Math.abs(accepted)}
                min={least}
                max={Math.abs(p.by)}
                step={least}
                label={tell('proposalCard.share_of_the_step_metres', { hasShare: !!p.share })}
                text={step(accepted)}
                oninput={(v) => ondecide(Math.sign(p.by) * v)}
              />
            </span>
          {/if}
          <button class="btn btn-xs" disabled={accepted === null} onclick={() => ondecide(null)}
            >{tell('proposalCard.decline')}</button
          >
        </div>
      {/if}
    {/if}
  </div>
</article>
