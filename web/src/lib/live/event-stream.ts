const againAfterMs = 3000;

/**
 * Hears an event stream of the server until ended; `url` is asked anew at each opening. A browser connects anew by itself
 * where a stream breaks off, but gives up where it is refused, as it is while the database is away: then it is opened
 * again here.
 */
export function listen(
  url: () => string,
  { heard, opened, lost }: { heard: (data: string) => void; opened?: () => void; lost?: () => void },
): () => void {
  let stream: EventSource;
  let again: ReturnType<typeof setTimeout> | undefined;
  const open = () => {
    stream = new EventSource(url());
    stream.onmessage = ({ data }: MessageEvent<string>) => heard(data);
    stream.onopen = () => opened?.();
    stream.onerror = () => {
      lost?.();
      if (stream.readyState === EventSource.CLOSED) again = setTimeout(open, againAfterMs);
    };
  };
  open();
  return () => {
    clearTimeout(again);
    stream.close();
  };
}
