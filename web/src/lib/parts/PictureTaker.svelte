<script lang="ts">
  import { freshId } from '$lib/live/outbox.svelte.ts';

  interface Props {
    /** Where pictures are sent. */
    to: string;
    /** Opens the camera rather than the files. */
    camera?: boolean;
    /** After each picture that was taken. */
    ontaken?: () => void;
  }
  const { to, camera = false, ontaken }: Props = $props();
  let caption = $state('');
  let sending = $state('');
  let told = $state('');
  let problems = $state.raw<readonly string[]>([]);
  let over = $state(false);

  /** Ids of pictures that got no answer: it may have been lost on the way back, and choosing one again is no other. */
  const unanswered = new Map<string, string>();

  /** One after the other, so that a bad one keeps no good one back. */
  async function send(files: readonly File[]): Promise<void> {
    told = '';
    problems = [];
    let sent = 0;
    for (const [i, file] of files.entries()) {
      sending = `Sending ${i + 1} of ${files.length}…`;
      const problem = await sendOne(file);
      if (problem) problems = [...problems, `${file.name}: ${problem}`];
      else sent++;
      if (!problem) ontaken?.();
    }
    sending = '';
    if (sent) told = sent === 1 ? 'The picture is with the unit.' : `${sent} pictures are with the unit.`;
    if (sent && !problems.length) caption = '';
  }

  async function sendOne(file: File): Promise<string | undefined> {
    const name = `${file.name} ${file.size} ${file.lastModified}`;
    const id = unanswered.get(name) ?? freshId();
    unanswered.set(name, id);
    const body = new FormData();
    body.set('id', id);
    body.set('caption', caption);
    body.set('picture', file);
    try {
      const answer = await fetch(to, { method: 'POST', body });
      unanswered.delete(name);
      if (answer.ok) return undefined;
      const { message } = (await answer.json().catch(() => ({}))) as { message?: string };
      return message ?? `it was not taken (${answer.status}).`;
    } catch {
      return 'the server did not answer: choose it again in a moment.';
    }
  }

  function onChoose(event: Event & { currentTarget: HTMLInputElement }) {
    const field = event.currentTarget;
    void send([...(field.files ?? [])]).then(() => (field.value = ''));
  }
  function onDrop(event: DragEvent) {
    event.preventDefault();
    over = false;
    void send([...(event.dataTransfer?.files ?? [])]);
  }
</script>

<div
  class="sheet flex flex-col gap-3 p-4"
  class:outline-2={over}
  role="group"
  aria-label="Add pictures"
  ondragover={(event) => {
    event.preventDefault();
    over = true;
  }}
  ondragleave={() => (over = false)}
  ondrop={onDrop}
>
  <label class="flex flex-col">
    What it shows
    <input class="input h-11 w-full" maxlength="120" bind:value={caption} placeholder="slip rings, as opened" />
  </label>
  <label
    class="btn h-16 text-lg btn-primary focus-within:outline-3 focus-within:outline-offset-2 focus-within:outline-primary"
  >
    {camera ? 'Take a picture' : 'Choose or drop pictures'}
    <input
      type="file"
      class="sr-only"
      accept="image/jpeg,image/png,image/webp"
      capture={camera ? 'environment' : undefined}
      multiple={!camera}
      disabled={sending !== ''}
      onchange={onChoose}
    />
  </label>
  <p role="status" class="min-h-6 text-lg">{sending || told}</p>
  {#each problems as problem, i (i)}
    <p role="alert" class="border-l-4 border-error px-3 py-1">{problem}</p>
  {/each}
</div>
