<script lang="ts">
  import type { TraceView } from '../../api/api';
  import { plain } from '../../words/units';
  import { tell } from '../../words/tell';

  /** What feet and hands do at a place of the lap, as recorded: brake and throttle as bars, the wheel turned. */
  interface Props {
    trace: TraceView;
    here: number;
  }
  let { trace, here }: Props = $props();
  const at = (name: string) => {
    const values = trace.channels[name];
    const v = values?.[Math.min(values.length - 1, Math.round(here / trace.step))];
    return v === undefined || !Number.isFinite(v) ? null : v;
  };
  const brake = $derived(at('BRAKE'));
  const throttle = $derived(at('THROTTLE'));
  const hands = $derived(at('STEERING'));
  const gear = $derived(at('GEAR'));
  const most = $derived(
    Math.max(0.05, ...(trace.channels.STEERING ?? []).map((v) => Math.abs(v)).filter(Number.isFinite)),
  );
  const share = (v: number) => Math.max(0, Math.min(1, v));
  // The most that was turned on the lap is a quarter turn of the drawing; positive is to the left.
  const turned = $derived(hands === null ? 0 : (-hands / most) * 90);
  const said = $derived(
    [
      brake === null ? '' : tell('pedalsNow.brake', { brake: plain(share(brake) * 100) }),
      throttle === null ? '' : tell('pedalsNow.throttle', { throttle: plain(share(throttle) * 100) }),
      hands === null
        ? ''
        : tell('pedalsNow.hands_left_right', { pI: plain((Math.abs(hands) * 180) / Math.PI), hasHands: hands >= 0 }),
      gear === null ? '' : tell('pedalsNow.gear', { gear: plain(gear) }),
    ].filter(Boolean),
  );
</script>

{#if said.length}
  <div class="flex items-center gap-3" data-pedals-now>
    <svg width="96" height="46" role="img" aria-label={said.join(', ')}>
      {#if brake !== null}
        <rect x="1" y="1" width="14" height="44" fill="none" stroke="var(--ink-soft)" />
        <rect x="1" y={45 - 44 * share(brake)} width="14" height={44 * share(brake)} fill="var(--brake)" />
      {/if}
      {#if throttle !== null}
        <rect x="21" y="1" width="14" height="44" fill="none" stroke="var(--ink-soft)" />
        <rect x="21" y={45 - 44 * share(throttle)} width="14" height={44 * share(throttle)} fill="var(--throttle)" />
      {/if}
      {#if hands !== null}
        <g transform="rotate({turned} 70 23)">
          <circle cx="70" cy="23" r="19" fill="none" stroke="var(--ink)" stroke-width="3" />
          <path d="M51 23h38" stroke="var(--ink)" stroke-width="2" />
          <rect x="67" y="2" width="6" height="6" fill="var(--turn)" />
        </g>
      {/if}
    </svg>
    <span class="tabular-nums">{said.join(', ')}</span>
  </div>
{/if}
