<script lang="ts">
  import { onMount } from 'svelte';
  import {
    api,
    ask,
    asProblem,
    type HeartView,
    type PointKind,
    type Problem,
    type RemarkView,
    type SharedWith,
  } from '../../api/api';
  import type { Desk } from './desk.svelte';
  import { POINTS } from '../../road/points';
  import FeltThere from './FeltThere.svelte';
  import ProblemBox from '../../kit/ProblemBox.svelte';
  import { metres } from '../../words/units';
  import { few } from '../../words/few';
  import { tell } from '../../words/tell';

  /** What coaches pin to the corner, and who may see the reference. */
  let { desk }: { desk: Desk } = $props();
  let remarks = $state.raw<RemarkView[]>([]);
  let people = $state.raw<SharedWith[]>([]);
  let heart = $state.raw<HeartView | null>(null);
  let problem = $state.raw<Problem | null>(null);
  let text = $state('');
  let kind = $state<PointKind | ''>('');
  let email = $state('');
  let role = $state<'COACH' | 'VIEWER'>('COACH');
  const path = $derived({ path: { id: desk.view.id } });
  const here = $derived(remarks.filter((r) => r.corner === desk.selected));
  const elsewhere = $derived([
    ...new Set(remarks.filter((r) => r.state === 'OPEN' && r.corner !== desk.selected).map((r) => r.corner)),
  ]);
  const number = (id: string) => desk.view.corners.find((c) => c.id === id)?.number ?? id;
  const canPin = $derived(desk.view.role !== 'VIEWER');

  async function act(what: () => Promise<unknown>) {
    problem = null;
    try {
      await what();
    } catch (e) {
      problem = asProblem(e);
    }
  }
  onMount(() =>
    act(async () => {
      remarks = await ask(api.GET('/api/references/{id}/remarks', { params: path }));
      if (desk.mine) people = await ask(api.GET('/api/references/{id}/shares', { params: path }));
      // Who was not let in is told so by the server, and sees nothing of it here.
      else if (canPin) heart = await ask(api.GET('/api/references/{id}/rehearsed', { params: path })).catch(() => null);
    }),
  );

  const pin = (event: SubmitEvent) => {
    event.preventDefault();
    return act(async () => {
      const entry = desk.base;
      remarks = await ask(
        api.POST('/api/references/{id}/remarks', {
          params: path,
          body: {
            corner: desk.selected,
            text,
            ...(kind ? { kind } : {}),
            ...(desk.tried && entry ? { proposed: entry } : {}),
          },
        }),
      );
      text = '';
      desk.giveUp();
    });
  };
  const decide = (r: RemarkView, accepted: boolean) =>
    act(async () => {
      await desk.ensureKept();
      const working = await ask(
        api.POST('/api/references/{id}/remarks/{remark}/decision', {
          params: { path: { id: desk.view.id, remark: r.id } },
          body: { accepted, version: desk.workingVersion },
        }),
      );
      if (accepted && r.proposed) desk.stored(working);
      remarks = await ask(api.GET('/api/references/{id}/remarks', { params: path }));
    });
  const takeBack = (r: RemarkView) =>
    act(async () => {
      remarks = await ask(
        api.DELETE('/api/references/{id}/remarks/{remark}', { params: { path: { id: desk.view.id, remark: r.id } } }),
      );
    });
  const share = (event: SubmitEvent) => {
    event.preventDefault();
    return act(async () => {
      people = await ask(api.PUT('/api/references/{id}/shares', { params: path, body: { email, role } }));
      email = '';
    });
  };
  const letIn = (p: SharedWith) =>
    act(async () => {
      people = await ask(
        api.PUT('/api/references/{id}/shares', {
          params: path,
          body: { email: p.email, role: p.role as 'COACH' | 'VIEWER' },
        }),
      );
    });
  const seesHeart = (p: SharedWith, sees: boolean) =>
    act(async () => {
      people = await ask(
        api.PUT('/api/references/{id}/shares/{share}/rehearsed', {
          params: { path: { id: desk.view.id, share: p.id } },
          body: { sees },
        }),
      );
    });
  /** How far off the places of this corner were last told. */
  const told = $derived(heart?.known.filter((k) => k.corner === desk.selected && k.asks === 'PLACE') ?? []);
  const worst = $derived(told.length ? Math.max(...told.map((k) => Math.abs(k.error ?? Infinity))) : null);
  const close = (p: SharedWith) =>
    act(async () => {
      people = await ask(
        api.DELETE('/api/references/{id}/shares/{share}', {
          params: { path: { id: desk.view.id, share: p.id } },
        }),
      );
    });
</script>

<section class="grid gap-2 text-sm" aria-label={tell('remarksPanel.remarks')}>
  {#if problem}<ProblemBox {problem} />{/if}
  {#each here as r (r.id)}
    <article
      class={['border-l-4 pl-2 leading-tight', r.state === 'OPEN' ? 'border-primary' : 'border-base-300']}
      data-remark={r.state}
    >
      <p>
        <strong>{r.author}</strong>{r.kind ? `, ${POINTS[r.kind].word.toLowerCase()}` : ''}{r.state === 'OPEN'
          ? ''
          : `, ${few(r.state)}`}
      </p>
      <p>{r.text}</p>
      {#each r.changes as c (c)}<p class="text-xs">{tell('remarksPanel.proposes', { what: c })}</p>{/each}
      {#if r.state === 'OPEN' && desk.mine}
        <button class="btn btn-xs btn-primary mt-1" onclick={() => decide(r, true)}
          >{tell('remarksPanel.take_it_over_agreed', { hasProposed: !!r.proposed })}</button
        >
        <button class="btn btn-xs mt-1" onclick={() => decide(r, false)}>{tell('remarksPanel.decline')}</button>
      {:else if r.state === 'OPEN' && r.mine}
        <button class="btn btn-xs mt-1" onclick={() => takeBack(r)}>{tell('remarksPanel.take_back')}</button>
      {/if}
    </article>
  {:else}
    <p>{tell('remarksPanel.no_remarks_on_this_corner', { hasPeople: !!(desk.mine && people.length === 0) })}</p>
  {/each}
  {#if elsewhere.length}
    <p class="text-xs">
      {tell('remarksPanel.open_in')}
      {#each elsewhere as c (c)}<button class="link mr-1" onclick={() => desk.select(c)}>{number(c)}</button>{/each}
    </p>
  {/if}
  {#if !desk.mine && canPin}<FeltThere reference={desk.view.id} corner={desk.selected} />{/if}
  {#if heart}
    <p data-heart>
      {tell('remarksPanel.by_heart', {
        corners: heart.ready
          ? tell('remarksPanel.of_corners_within_8_m', { ready: heart.ready.ready, corners: heart.ready.corners })
          : tell('remarksPanel.not_rehearsed'),
        worst:
          worst === null
            ? tell('remarksPanel.this_corner_was_not_asked')
            : tell('remarksPanel.a_place_of_this_corner', { isWorst: worst === Infinity, worst: metres(worst) }),
      })}
    </p>
  {/if}
  {#if canPin}
    <form class="border-base-300 grid gap-1 border-t pt-1" onsubmit={pin}>
      <div class="flex items-center gap-1">
        <span class="flex-1">{tell('remarksPanel.propose_what_you_tried_pin', { hasTried: !!desk.tried })}</span>
        <select class="select select-xs w-24" aria-label={tell('remarksPanel.to_which_point')} bind:value={kind}>
          <option value="">{tell('remarksPanel.the_corner')}</option>
          {#each desk.base?.points ?? [] as p (p.kind)}<option value={p.kind}>{POINTS[p.kind].word}</option>{/each}
        </select>
      </div>
      <textarea
        class="textarea textarea-xs min-h-12"
        required
        maxlength="2000"
        bind:value={text}
        aria-label={tell('remarksPanel.remark')}
        placeholder={tell('remarksPanel.what_you_see_and_why')}></textarea>
      <div class="flex justify-end gap-1">
        {#if desk.tried}<button type="button" class="btn btn-xs" onclick={() => desk.giveUp()}
            >{tell('remarksPanel.put_it_back')}</button
          >{/if}
        <button class="btn btn-xs btn-primary" disabled={text.trim() === ''}
          >{tell('remarksPanel.propose_pin', { hasTried: !!desk.tried })}</button
        >
      </div>
      {#if !desk.mine}
        <p class="text-xs">
          {tell('remarksPanel.drag_the_flags_to_try', { driver: desk.view.driver })}
        </p>
      {/if}
    </form>
  {/if}
  {#if desk.mine}
    <form
      class="border-base-300 grid gap-1 border-t pt-1"
      onsubmit={share}
      aria-label={tell('remarksPanel.open_it_to')}
    >
      <strong>{tell('remarksPanel.open_to')}</strong>
      {#each people as p (p.id)}
        <p class="flex flex-wrap items-center gap-1" data-shared={p.email}>
          <span class="min-w-0 flex-1 truncate"
            >{tell('remarksPanel.has_joined_since_not_opened', {
              name: p.name,
              role: few(p.role),
              hasAsks: !!p.asks,
              hasSeen: !!p.seen,
            })}</span
          >
          {#if p.asks}<button type="button" class="btn btn-xs" onclick={() => letIn(p)}
              >{tell('remarksPanel.let_in')}</button
            >{/if}
          {#if p.role === 'COACH' && !p.asks}
            <label class="order-last flex w-full items-center gap-1"
              ><input
                type="checkbox"
                class="checkbox checkbox-xs"
                checked={p.seesRehearsed}
                onchange={(e) => seesHeart(p, e.currentTarget.checked)}
              />{tell('remarksPanel.sees_what_you_know_by')}</label
            >
          {/if}
          <button type="button" class="btn btn-xs btn-ghost" onclick={() => close(p)}
            >{tell('remarksPanel.close')}</button
          >
        </p>
      {/each}
      <div class="flex gap-1">
        <input
          class="input input-xs min-w-0 flex-1"
          type="email"
          required
          maxlength="200"
          placeholder={tell('remarksPanel.address_they_sign_in_with')}
          aria-label={tell('remarksPanel.address')}
          bind:value={email}
        />
        <select class="select select-xs w-20" aria-label={tell('remarksPanel.as')} bind:value={role}>
          <option value="COACH">{tell('remarksPanel.coach')}</option>
          <option value="VIEWER">{tell('remarksPanel.viewer')}</option>
        </select>
        <button class="btn btn-xs">{tell('remarksPanel.open')}</button>
      </div>
    </form>
  {/if}
</section>
