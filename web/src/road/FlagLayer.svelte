<script lang="ts">
  import type { Corner, CornerEntry, Judgement, PointKind } from '../api/api';
  import { few } from '../words/few';
  import { metres, plain } from '../words/units';
  import { ROW, ROWS, type CornerView } from './cornerView.svelte';
  import type { Drag } from './drags';
  import FlagShape from './FlagShape.svelte';
  import { placeLabels, textWidth } from './labels';
  import { apart, POINTS, foundBy, station } from './points';

  /** A flag for each point, where it stood before, and its label below the road. */
  interface Props {
    view: CornerView;
    /** Whether it is worked on with fingers. */
    fingers?: boolean;
    length: number;
    corner: Corner;
    entry: CornerEntry;
    before?: CornerEntry | null;
    doubts?: PointKind[];
    grades?: Partial<Record<PointKind, Judgement['grade']>>;
    readonly?: boolean;
    held?: PointKind | null;
    drag: Drag;
    onmove?: (kind: PointKind, to: number) => void;
    onnudge?: (kind: PointKind, by: number) => void;
    onsettle?: (kind: PointKind, moved: boolean) => void;
    onhold?: (kind: PointKind | null) => void;
  }
  let {
    view,
    fingers = false,
    length,
    corner,
    entry,
    before = null,
    doubts = [],
    grades = {},
    readonly = false,
    held = null,
    drag,
    onmove,
    onnudge,
    onsettle,
    onhold,
  }: Props = $props();

  const GRADES: Record<Judgement['grade'], string> = { SOLID: '●', USABLE: '◐', WEAK: '○', NOT_TO_BE_RELIED_ON: '×' };

  const reach = $derived(fingers ? 22 : 14);
  /** Pixels that a flag is taken by on each side: as far as its neighbours leave it, so that the nearest is taken. */
  function grip(at: number): [number, number] {
    const apartBy = flags.map((f) => view.x(f.s) - view.x(at)).filter((d) => Math.abs(d) > 1);
    const half = (side: number[]) => Math.max(5, Math.min(reach, ...side.map((d) => Math.abs(d) / 2)));
    return [half(apartBy.filter((d) => d < 0)), half(apartBy.filter((d) => d > 0))];
  }
  const flags = $derived(
    entry.points.map((p) => {
      const style = POINTS[p.kind];
      const tie = foundBy(p, metres);
      const extra =
        p.kind === 'BRAKE'
          ? ` · ${plain(entry.firstEffort * 100)} %`
          : p.kind === 'FIRST_THROTTLE'
            ? ` ${plain(entry.firstThrottle * 100)} %`
            : p.kind === 'APEX'
              ? `, ${few(entry.apexType)}`
              : '';
      const unsure = p.sure === 'UNSURE' || p.sure === 'CARRIED';
      const doubt = doubts.includes(p.kind) || unsure ? ' ?' : '';
      const grade = grades[p.kind];
      const title = style.word + (p.kind === 'BRAKE' ? '' : extra) + doubt;
      const detail =
        (tie ?? metres(p.station)) + (p.kind === 'BRAKE' ? extra : '') + (grade ? ` ${GRADES[grade]}` : '');
      return { kind: p.kind, s: view.near(p.station), station: p.station, title, detail, colour: style.colour, unsure };
    }),
  );
  const wide = (f: { title: string; detail: string }) => Math.max(textWidth(f.title, 13), textWidth(f.detail));
  const placed = $derived(
    placeLabels(
      flags.map((f) => ({ x: view.x(f.s), width: wide(f) })),
      ROWS,
      view.width - 4,
    ),
  );
  const ghosts = $derived(
    (before?.points ?? [])
      .map((p) => ({ kind: p.kind, s: p.station, now: station(entry, p.kind) }))
      .filter((g) => g.now === undefined || Math.abs(apart(g.s, g.now, length)) >= 0.25),
  );
  const rim = $derived(view.y(view.widest / 2) - 6);

  /** The point that the keys have moved and that was not let go of yet. */
  let nudged: PointKind | null = null;
  function settle(kind: PointKind) {
    onsettle?.(kind, nudged === kind);
    nudged = null;
  }
  function onkeydown(event: KeyboardEvent, kind: PointKind) {
    if (readonly) return;
    const by = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0;
    if (by) {
      event.preventDefault();
      onnudge?.(kind, by * (event.shiftKey ? 5 : 1));
      nudged = kind;
    } else if (event.key === 'Enter' && nudged === kind) {
      event.preventDefault();
      settle(kind);
    } else if (event.key === 'Escape') {
      (event.currentTarget as SVGGElement).blur();
    }
  }
</script>

{#each ghosts as g (g.kind)}
  {@const at = view.near(g.s)}
  <g transform="translate({view.x(at)} {view.pathY(at)})" aria-hidden="true">
    <FlagShape kind={g.kind} ghost left={corner.left} />
  </g>
  {#if g.now !== undefined}
    {@const now = view.x(view.near(g.now))}
    <path d="M{view.x(at)} {rim}H{now}" stroke={POINTS[g.kind].colour} stroke-width="2" />
    <circle cx={now} cy={rim} r="3" fill={POINTS[g.kind].colour} />
  {/if}
{/each}

{#each flags as f, i (f.kind)}
  {@const end = view.labelTop + (placed[i]?.row ?? 0) * ROW + 22}
  <path d="M{view.x(f.s)} {view.pathY(f.s)}V{end}" stroke={f.colour} stroke-width="1.4" />
{/each}
{#each flags as f, i (f.kind)}
  {@const at = placed[i] ?? { row: 0, x: 0 }}
  {@const top = view.labelTop + at.row * ROW}
  {@const [sooner, later] = grip(f.s)}
  <g
    role="slider"
    tabindex={readonly ? -1 : 0}
    aria-label={POINTS[f.kind].word}
    aria-valuenow={Math.round(f.station)}
    aria-valuetext="{f.title}, {f.detail}"
    aria-disabled={readonly}
    data-flag={f.kind}
    data-station={f.station}
    class={[readonly ? '' : 'cursor-ew-resize', fingers && held === f.kind && 'touch-none']}
    onpointerdown={(e) =>
      drag(
        e,
        f.s,
        (to) => onmove?.(f.kind, to),
        (moved) => onsettle?.(f.kind, moved),
      )}
    onkeydown={(e) => onkeydown(e, f.kind)}
    onfocus={() => onhold?.(f.kind)}
    onblur={() => {
      onhold?.(null);
      settle(f.kind);
    }}
  >
    <rect
      class="focus-ring"
      x={at.x - 3}
      y={top - 2}
      width={wide(f) + 4}
      height="29"
      rx="3"
      fill="var(--color-base-200)"
      fill-opacity="0.85"
      stroke={held === f.kind || f.unsure ? f.colour : 'none'}
      stroke-width="1.5"
      stroke-dasharray={f.unsure && held !== f.kind ? '3 3' : undefined}
      data-unsure={f.unsure ? '' : undefined}
    />
    <g transform="translate({view.x(f.s)} {view.pathY(f.s)})">
      <rect x={-sooner} y={-reach} width={sooner + later} height={2 * reach} fill="transparent" data-grip />
      <FlagShape kind={f.kind} left={corner.left} />
    </g>
    <text x={at.x} y={top + 11} font-weight="700" style="fill:{f.colour};font-size:13px">{f.title}</text>
    <text x={at.x} y={top + 24}>{f.detail}</text>
  </g>
{/each}
