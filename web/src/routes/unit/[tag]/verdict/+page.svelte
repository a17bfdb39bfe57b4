<script lang="ts">
  import { type CourseId, courseNames } from '@refectum/core/verdict';
  import { ValidationError } from 'yup';
  import { dayAndTimeOf } from '$lib/dates.ts';
  import { overrode, tagFacts } from '$lib/job.ts';
  import { followBench } from '$lib/live/follow-bench.svelte.ts';
  import { once } from '$lib/live/once.ts';
  import { freshId, outbox } from '$lib/live/outbox.svelte.ts';
  import Courses from '$lib/parts/Courses.svelte';
  import Tag from '$lib/parts/Tag.svelte';
  import UnlikeKind from '$lib/parts/UnlikeKind.svelte';
  import { decisionSchema } from '$lib/schemas.ts';

  const { data } = $props();
  const following = followBench(() => data, 'bench');
  const bench = $derived(following.current);
  let course = $state<CourseId>();
  let reason = $state('');
  let problem = $state('');
  const prices = $derived(bench.setting.prices);
  const items = $derived(bench.subject.items);
  /** What would still pay itself, not the null or the light that comes before it. */
  const next = $derived(bench.outlook?.next.find(({ bits }) => bits > 0));
  const decided = $derived(outbox.waiting.some(({ tag, path }) => tag === data.job.tag && path.endsWith('/verdicts')));

  type Amount = 'labourPerHour' | 'exchange' | 'core' | 'comeback';
  const amounts: readonly { name: Amount; label: string }[] = [
    { name: 'labourPerHour', label: 'Labour per hour' },
    { name: 'exchange', label: 'Exchange or new unit' },
    { name: 'core', label: 'Worth of the core' },
    { name: 'comeback', label: 'Cost of a comeback' },
  ];
  function setAmount(name: Amount, value: number | undefined) {
    void bench.change({ prices: { [name]: value ?? null } });
  }
  function setItem(id: string, field: 'price' | 'minutes', value: number | undefined) {
    void bench.change({ prices: { items: { [id]: { [field]: value ?? null } } } });
  }
  /** A typed amount; undefined when empty, NaN when it is none. */
  function amountOf(text: string): number | undefined {
    if (text.trim() === '') return undefined;
    const value = Number(text.trim().replace(',', '.'));
    return Number.isFinite(value) && value >= 0 ? value : Number.NaN;
  }
  function onAmount(event: Event & { currentTarget: HTMLInputElement }, put: (value: number | undefined) => void) {
    const value = amountOf(event.currentTarget.value);
    const wrong = Number.isNaN(value);
    event.currentTarget.setCustomValidity(
      wrong ? 'Type an amount of at least 0, like 48 or 12.50; empty is “unknown”.' : '',
    );
    if (wrong) event.currentTarget.reportValidity();
    else put(value);
  }

  async function vouch(knownGood: boolean) {
    const id = freshId();
    const path = `/api/jobs/${data.job.tag}`;
    await outbox.send(data.person, { id, tag: data.job.tag, method: 'PATCH', path, body: { id, knownGood } });
  }

  const decide = once(async () => {
    problem = '';
    const entry = { id: freshId(), course, reason, technician: data.person.id };
    try {
      const body = await decisionSchema.validate(entry, { abortEarly: false });
      const path = `/api/jobs/${data.job.tag}/verdicts`;
      await outbox.send(data.person, { id: entry.id, tag: data.job.tag, method: 'POST', path, body });
      reason = '';
      course = undefined;
    } catch (cause) {
      if (!(cause instanceof ValidationError)) throw cause;
      problem = cause.errors.join(' ');
    }
  });
</script>

<svelte:head><title>Verdict, tag {data.job.tag} · Refectum</title></svelte:head>

<section class="flex flex-col gap-4 p-4">
  <div class="flex items-stretch gap-3">
    <div class="grow"><Tag facts={tagFacts(bench.job)} wide /></div>
    <a class="btn h-auto" href="/unit/{data.job.tag}">Bench</a>
    <a class="btn h-auto" href="/unit/{data.job.tag}/report">Report</a>
  </div>
  <h1 class="text-2xl font-semibold">Verdict sheet</h1>
  {#each data.job.verdicts as verdict (verdict.id)}
    <p class="border-l-4 border-success px-3 py-1 text-lg">
      <strong>{courseNames[verdict.course]}</strong>, {[verdict.technician, dayAndTimeOf(verdict.at), overrode(verdict)]
        .filter(Boolean)
        .join(', ')}: {verdict.reason}
    </p>
  {/each}
  {#if bench.outlook?.verdict}
    {@const { verdict } = bench.outlook}
    <p class="text-lg">{verdict.reason}</p>
    {#if bench.diagnosis}<UnlikeKind diagnosis={bench.diagnosis} />{/if}
    {#if next && !bench.outlook.stop}
      <p class="border-l-4 border-info px-3 py-1">
        Not all is known: “{next.name}” would still pay for its {next.minutes}{next.setupMinutes
          ? ` + ${next.setupMinutes}`
          : ''} min.
        <a class="link" href="/unit/{data.job.tag}">Back to the bench</a>.
      </p>
    {/if}
    <Courses {verdict} chosen={course} onchoose={(id) => (course = id)} />
    <form
      class="sheet flex flex-wrap items-end gap-3 p-3"
      onsubmit={(event) => {
        event.preventDefault();
        void decide();
      }}
    >
      <label class="flex grow flex-col">
        Why, in the shop’s own words
        <input
          type="text"
          class="input w-full"
          bind:value={reason}
          oninput={() => (problem = '')}
          aria-describedby="decide-problem"
        />
      </label>
      <button class="btn btn-primary" disabled={decided}
        >{decided ? 'On its way…' : course ? `Decide: ${courseNames[course].toLowerCase()}` : 'Decide'}</button
      >
      <p id="decide-problem" role="alert" class="min-h-5 w-full text-error">{problem || bench.problem || ''}</p>
    </form>
    {#if data.person.role === 'lead'}
      <label class="flex min-h-11 items-center gap-3">
        <input
          type="checkbox"
          class="checkbox"
          checked={data.job.knownGood}
          onchange={(e) => void vouch(e.currentTarget.checked)}
        />
        Known good: what it reads tells what sound {data.job.model} read
      </label>
    {:else if data.job.knownGood}
      <p>A lead vouches for this unit: what it reads tells what sound {data.job.model} read.</p>
    {/if}
    <details class="sheet p-3" open={Object.keys(prices.items).length > 0 || prices.labourPerHour !== undefined}>
      <summary class="min-h-11 cursor-pointer py-2 font-semibold"
        >Prices and minutes: change one, the sheet reworks; empty is “unknown”</summary
      >
      <div class="grid gap-x-6 md:grid-cols-4">
        {#each amounts as { name, label } (name)}
          <label class="flex flex-col">
            {label}
            <input
              type="text"
              inputmode="decimal"
              class="figure input w-full"
              value={prices[name] ?? ''}
              onchange={(e) => onAmount(e, (v) => setAmount(name, v))}
            />
          </label>
        {/each}
      </div>
      <table class="table mt-3 w-auto">
        <thead><tr><th scope="col">Part</th><th scope="col">Price</th><th scope="col">Minutes</th></tr></thead>
        <tbody>
          {#each items as item (item.id)}
            <tr>
              <th scope="row" class="font-normal">{item.name}</th>
              <td
                ><input
                  aria-label="Price of {item.name}"
                  type="text"
                  inputmode="decimal"
                  class="figure input w-28"
                  value={prices.items[item.id]?.price ?? ''}
                  onchange={(e) => onAmount(e, (v) => setItem(item.id, 'price', v))}
                /></td
              >
              <td
                ><input
                  aria-label="Minutes for {item.name}"
                  type="text"
                  inputmode="decimal"
                  class="figure input w-28"
                  placeholder={String(item.minutes)}
                  value={prices.items[item.id]?.minutes ?? ''}
                  onchange={(e) => onAmount(e, (v) => setItem(item.id, 'minutes', v))}
                /></td
              >
            </tr>
          {/each}
        </tbody>
      </table>
    </details>
  {:else}
    <p role="status">Weighing the courses…</p>
  {/if}
</section>
