import { tagFromCode, tagPrefix } from '../job.ts';

/** A scanner types faster than any hand. */
const fastMilliseconds = 100;

/**
 * Watches all keys for a barcode reader's burst: the tag's prefix, digits, Enter, each soon after the last. Letters
 * that may begin a tag are held back until it is clear what they are; if no tag comes of them they go where they
 * were meant to.
 */
export function watchScanner(open: (tag: number) => void): () => void {
  let held = '';
  let target: EventTarget | null = null;
  let timer: ReturnType<typeof setTimeout> | undefined;

  const release = () => {
    const text = held;
    held = '';
    const writable =
      target instanceof HTMLTextAreaElement || (target instanceof HTMLInputElement && target.type === 'text');
    if (text && writable && document.contains(target as Node)) {
      const field = target as HTMLInputElement | HTMLTextAreaElement;
      field.setRangeText(text, field.selectionStart ?? 0, field.selectionEnd ?? 0, 'end');
      field.dispatchEvent(new Event('input', { bubbles: true }));
    }
  };
  const onKey = (event: KeyboardEvent) => {
    if (event.ctrlKey || event.altKey || event.metaKey || event.isComposing) return;
    const next = held + event.key;
    const fits =
      event.key.length === 1 &&
      (tagPrefix.startsWith(next) || (next.startsWith(tagPrefix) && /^\d+$/.test(next.slice(tagPrefix.length))));
    if (fits) {
      if (!held) target = event.target;
      held = next;
    } else if (event.key === 'Enter' && held.length > tagPrefix.length) {
      const tag = tagFromCode(held);
      held = '';
      if (tag !== undefined) open(tag);
    } else {
      if (held && event.key !== 'Shift') {
        clearTimeout(timer);
        release();
      }
      return;
    }
    event.preventDefault();
    event.stopImmediatePropagation();
    clearTimeout(timer);
    timer = setTimeout(release, fastMilliseconds);
  };
  window.addEventListener('keydown', onKey, { capture: true });
  return () => {
    clearTimeout(timer);
    window.removeEventListener('keydown', onKey, { capture: true });
  };
}
