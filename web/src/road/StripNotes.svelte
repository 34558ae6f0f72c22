<script lang="ts">
  import type { ScaleLinear } from 'd3-scale';
  import type { Corner, CornerEntry, Detail, PointKind } from '../api/api';
  import { placeLabels, textWidth } from './labels';
  import { catalogue } from '../api/catalogue.svelte';
  import { station } from './points';
  import { tell } from '../words/tell';

  /** What an entry says besides its points, where along the corner it matters. */
  interface Props {
    x: ScaleLinear<number, number>;
    near: (station: number) => number;
    domain: [number, number];
    corner: Corner;
    entry: CornerEntry;
    width: number;
    onpick?: (detail: Detail | null) => void;
  }
  let { x, near, domain, corner, entry, width, onpick }: Props = $props();

  const PLACE: Record<string, { kind: PointKind; off: number }> = {
    APPROACH: { kind: 'BRAKE', off: -28 },
    BRAKING: { kind: 'BRAKE', off: 0 },
    GEARS: { kind: 'BRAKE', off: 18 },
    TURN_IN: { kind: 'TURN_IN', off: 0 },
    RELEASE: { kind: 'RELEASE', off: 0 },
    BODY: { kind: 'APEX', off: -12 },
    THROTTLE: { kind: 'FIRST_THROTTLE', off: 0 },
    RACECRAFT: { kind: 'APEX', off: 18 },
    EXIT: { kind: 'EXIT', off: 0 },
    HAZARDS: { kind: 'EXIT', off: -30 },
  };
  const longest = $derived(Object.keys(entry.details).length > 8 ? 15 : 28);
  const shortened = (text: string) => (text.length > longest ? text.slice(0, longest - 1).trimEnd() + '…' : text);

  const notes = $derived.by(() => {
    const all = Object.entries(entry.details)
      .filter(([, text]) => text.trim())
      .map(([detail, text]) => {
        const words = catalogue.detail(detail as Detail);
        const place = PLACE[words?.phase ?? 'EXIT'] ?? { kind: 'EXIT' as PointKind, off: 0 };
        const s = near((station(entry, place.kind) ?? corner.apexes[0] ?? corner.entry) + place.off);
        const choice = words?.choices.find((c) => c.value === text)?.words;
        const free = !words?.choices.length;
        const what = words?.words ?? detail;
        const told = free
          ? text
          : longest < 20
            ? `${what.split(' ')[0]} ${choice ?? text}`
            : `${what}: ${choice ?? text}`;
        return { id: detail, s, text: shortened(told), full: `${what}: ${choice ?? text}` };
      });
    return all.filter((n) => n.s > domain[0] - 40 && n.s < domain[1] + 40).sort((a, b) => a.s - b.s);
  });
  const room = $derived(width - 70);
  const fits = (i: number) => {
    const at = placed[i];
    return !!at && at.x + textWidth(notes[i]?.text ?? '', 11) < room;
  };
  const hidden = $derived(notes.filter((_, i) => !fits(i)));
  const placed = $derived(
    placeLabels(
      notes.map((n) => ({
        x: Math.max(8, Math.min(width - 20, x(n.s))),
        width: textWidth(n.text, 11) + 8,
      })),
      2,
      width + 4000,
    ),
  );
</script>

{#each notes as n, i (n.id)}
  {@const at = placed[i] ?? { row: 0, x: 0 }}
  {#if fits(i)}
    <g
      role="button"
      tabindex="0"
      aria-label={n.full}
      class="cursor-pointer"
      data-note={n.id}
      onclick={() => onpick?.(n.id as Detail)}
      onkeydown={(e) => {
        if (e.key === 'Enter') onpick?.(n.id as Detail);
      }}
    >
      <title>{n.full}</title>
      <path d="M{at.x + 1.5} {4 + at.row * 15}v11" stroke="var(--ink-soft)" stroke-width="3" />
      <text x={at.x + 6} y={13 + at.row * 15} style="font-size:11px;fill:var(--ink)">{n.text}</text>
    </g>
  {/if}
{/each}
{#if hidden.length}
  <g
    role="button"
    tabindex="-1"
    aria-label={tell('stripNotes.more_notes', { hidden: hidden.length })}
    class="cursor-pointer"
    onclick={() => onpick?.(null)}
    onkeydown={() => undefined}
  >
    <title>{hidden.map((n) => n.full).join('\n')}</title>
    <text x={width - 60} y="13" style="font-size:11px" font-weight="700"
      >{tell('stripNotes.more', { hidden: hidden.length })}</text
    >
  </g>
{/if}
