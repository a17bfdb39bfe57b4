<script lang="ts">
  import { goto } from '$app/navigation';
  import { dayOf } from '$lib/dates.ts';
  import { complaintName } from '$lib/job.ts';
  import { labelSizes } from '$lib/labels.ts';

  const { data } = $props();
  const image = (svg: string) => `data:image/svg+xml,${encodeURIComponent(svg)}`;
  const complaint = $derived(complaintName(data.job.complaint));
  const page = $derived(`<style>@page { size: ${data.size.width}mm ${data.size.height}mm; margin: 0; }</` + 'style>');
</script>

<svelte:head>
  <title>Label, tag {data.job.tag} · Refectum</title>
  <!-- eslint-disable-next-line svelte/no-at-html-tags -- two numbers of our own table -->
  {@html page}
</svelte:head>

<div class="no-print flex items-end gap-3 px-4 pt-4">
  <a class="btn" href="/unit/{data.job.tag}">Bench</a>
  <label class="flex flex-col text-sm">
    Label roll
    <select
      class="select h-9 w-40"
      value={data.size.id}
      onchange={(e) => void goto(`?size=${e.currentTarget.value}`, { replaceState: true, keepFocus: true })}
    >
      {#each labelSizes as { id, width, height } (id)}<option value={id}>{width} × {height} mm</option>{/each}
    </select>
  </label>
  <span class="grow"></span>
  <button class="btn btn-primary" onclick={() => print()}>Print</button>
</div>

<h1 class="sr-only">Label of tag {data.job.tag}</h1>
<div class="sheet-around">
  <div class="label" style:width="{data.size.width}mm" style:height="{data.size.height}mm">
    <div class="text">
      <p class="figure number">{data.job.tag}</p>
      <p class="line strong">{data.job.model}</p>
      <p class="line">{data.job.customer}</p>
      <p class="line">{complaint}{data.job.due ? `, due ${dayOf(data.job.due)}` : ''}</p>
      <img class="bars" src={image(data.barcode)} alt="Barcode of tag {data.job.tag}" />
    </div>
    <img class="square" src={image(data.square)} alt="Square code that opens tag {data.job.tag}" />
  </div>
</div>

<style>
  .sheet-around {
    display: flex;
    justify-content: center;
    padding: 2rem;
  }
  .label {
    display: flex;
    gap: 2mm;
    padding: 1.5mm 2mm;
    background: white;
    color: black;
    outline: 1px dashed currentColor;
    overflow: hidden;
    font-size: 2.7mm;
    line-height: 1.2;
  }
  .text {
    display: flex;
    flex-direction: column;
    flex: 1;
    min-width: 0;
  }
  .number {
    font-size: 6.5mm;
    font-weight: 700;
    line-height: 1;
  }
  .line {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .strong {
    font-weight: 600;
  }
  .bars {
    min-height: 0;
    flex: 1;
    width: 100%;
    object-fit: fill;
    margin-top: 1mm;
  }
  .square {
    height: 100%;
    max-width: 40%;
    object-fit: contain;
  }
  @media print {
    .sheet-around {
      padding: 0;
      display: block;
    }
    .label {
      outline: none;
    }
  }
</style>
