/**
 * Hears which jobs changed elsewhere. The stream is closed while the page is hidden (a browser keeps few open to one
 * host); `missed` is called when it comes back.
 */
export function watchChanges(heard: (tag: number) => void, missed: () => void): () => void {
  let stream: EventSource | undefined;
  let lost = false;
  const open = () => {
    stream = new EventSource('/api/events');
    stream.onmessage = ({ data }) => heard(Number(data));
    stream.onerror = () => (lost = true);
    stream.onopen = () => {
      if (lost) missed();
      lost = false;
    };
  };
  const onVisible = () => {
    stream?.close();
    if (document.hidden) lost = true;
    else open();
  };
  open();
  document.addEventListener('visibilitychange', onVisible);
  return () => {
    stream?.close();
    document.removeEventListener('visibilitychange', onVisible);
  };
}
