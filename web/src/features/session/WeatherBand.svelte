<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { api, ask, asProblem, sendForm, type Problem, type SessionDay, type SessionLine } from '../../api/api';
  import type { components } from '../../api/generated/api';
  import { plain } from '../../words/units';
  import { clock } from '../../words/clock';
  import { few } from '../../words/few';
  import { tell } from '../../words/tell';

  /** What the station read and forecasts around a session: rain as a band, air above it, the session as a block. */
  interface Props {
    line: SessionLine;
    ontake: (day: SessionDay) => void;
    onproblem: (problem: Problem | null) => void;
  }
  let { line, ontake, onproblem }: Props = $props();
  type Told = components['schemas']['WeatherView'];
  /** What a file said, until this screen is left. */
  let brought = $state.raw<{ name: string; told: Told } | null>(null);
  async function bring(files: FileList | null) {
    const file = files?.[0];
    if (!file) return;
    onproblem(null);
    try {
      brought = { name: file.name, told: await sendForm<Told>(`/api/sessions/${line.id}/weather`, { file }) };
    } catch (e) {
      onproblem(asProblem(e));
    }
  }
  const asked = createQuery(() => ({
    queryKey: ['weather', line.id, line.begins],
    refetchInterval: 120_000,
    queryFn: () => ask(api.GET('/api/sessions/{id}/weather', { params: { path: { id: line.id } } })),
  }));

  const told = $derived(brought?.told ?? asked.data ?? null);

  const HEIGHT = 74;
  const BASE = 52;
  const MOST = 6;
  let width = $state(300);
  const zone = $derived(line.session.timing.start.zone);
  const from = $derived(new Date(line.begins).getTime() - 2.5 * 3_600_000);
  const to = $derived(new Date(line.ends).getTime() + 2 * 3_600_000);
  const x = $derived((at: string) => ((new Date(at).getTime() - from) / (to - from)) * width);
  const moments = $derived(
    [...(told?.weather?.readings ?? []), ...(told?.weather?.forecast ?? [])].filter((m) => {
      const t = new Date(m.at).getTime();
      return t >= from - 1_800_000 && t <= to + 1_800_000;
    }),
  );
  const up = (rain: number) => BASE - (Math.min(rain, MOST) / MOST) * 30;
  const band = $derived(
    moments.length < 2
      ? ''
      : `M ${moments.map((m) => `${x(m.at)} ${up(m.rainHigh)}`).join(' L ')} L ${[...moments]
          .reverse()
          .map((m) => `${x(m.at)} ${up(m.rainLow)}`)
          .join(' L ')} Z`,
  );
  const proposed = $derived(told?.proposed ?? null);
  const same = $derived(
    !!proposed &&
      proposed.day.surface?.state === (line.session.day.day.surface?.state ?? 'DRY') &&
      Math.abs((proposed.day.airTemperature ?? 15) - (line.session.day.day.airTemperature ?? 15)) < 2 &&
      Math.abs(proposed.day.windSpeed - line.session.day.day.windSpeed) < 2,
  );
</script>

{#if told?.there}
  <div class="grid gap-1" bind:clientWidth={width} data-weather>
    {#if moments.length > 1}
      <svg {width} height={HEIGHT} role="img" aria-label={tell('weatherBand.rain_read_and_forecast_around')}>
        <rect
          x={x(line.begins)}
          y="4"
          width={Math.max(3, x(line.ends) - x(line.begins))}
          height={BASE - 4}
          fill="var(--throttle-fill)"
          opacity="0.6"
        />
        <path d={band} fill="var(--brake)" opacity="0.35" />
        <path
          d="M {moments.map((m) => `${x(m.at)} ${up((m.rainLow + m.rainHigh) / 2)}`).join(' L ')}"
          fill="none"
          stroke="var(--brake)"
          stroke-width="1.5"
        />
        <line x1="0" x2={width} y1={BASE} y2={BASE} stroke="var(--road-edge)" />
        {#each moments.filter((_, i) => i % Math.ceil(moments.length / 5) === 0) as m (m.at)}
          <text x={Math.min(width - 30, Math.max(0, x(m.at) - 14))} y={BASE + 13} style="font-size: 10.5px"
            >{clock(m.at, zone)}</text
          >
          {#if m.air != null}<text
              x={Math.min(width - 26, Math.max(0, x(m.at) - 10))}
              y={HEIGHT - 1}
              style="font-size: 10px; fill: var(--ink-soft)">{plain(m.air)} °C</text
            >{/if}
        {/each}
        <text x={width - 64} y="12" style="font-size: 10.5px; fill: var(--ink-soft)"
          >{tell('weatherBand.rain_mm_h')}</text
        >
      </svg>
    {:else}
      <p>
        {tell('weatherBand.says_nothing_of_that_time', {
          name: brought ? brought.name : tell('weatherBand.the_station'),
          hasBrought: !!brought,
        })}
      </p>
    {/if}
    {#if told.trouble}<p>{tell('weatherBand.enter_the_weather_by_hand', { trouble: told.trouble })}</p>{/if}
    {#if told.stale}<p>{tell('weatherBand.the_last_reading_is_more')}</p>{/if}
    {#if proposed}
      <p class="flex flex-wrap items-center gap-2">
        <span
          >{tell('weatherBand.at_the_start_c_wind', {
            state: few(proposed.day.surface?.state ?? 'DRY'),
            airTemperature: plain(proposed.day.airTemperature ?? 15),
            windSpeed: plain(proposed.day.windSpeed),
          })}</span
        >
        {#if !same}<button class="btn btn-xs" onclick={() => proposed && ontake(proposed)}
            >{tell('weatherBand.plan_for_that')}</button
          >{/if}
      </p>
    {/if}
  </div>
{/if}
<p class="flex flex-wrap items-center gap-2">
  {#if brought}
    <span>{tell('weatherBand.by', { name: brought.name })}</span>
    <button class="btn btn-xs" onclick={() => (brought = null)}>{tell('weatherBand.leave_it')}</button>
  {/if}
  <label class="btn btn-xs">
    {tell('weatherBand.weather_from_a_file')}
    <input
      type="file"
      accept=".json,.csv,application/json,text/csv"
      class="sr-only"
      onchange={(e) => bring(e.currentTarget.files)}
    />
  </label>
</p>
