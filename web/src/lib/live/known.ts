/**
 * Asks what earlier jobs know of what stands in a field. Undefined where the server is away (check-in goes on without), or
 * where the field says something else by the time of the answer.
 */
export async function known<T>(what: 'customer' | 'model' | 'serial', field: () => string): Promise<T[] | undefined> {
  const text = field().trim();
  if (!text) return [];
  try {
    const answer = await fetch(`/api/known?${new URLSearchParams({ [what]: text })}`);
    const found = answer.ok ? ((await answer.json()) as T[]) : undefined;
    return field().trim() === text ? found : undefined;
  } catch {
    return undefined;
  }
}
