/** Asks what earlier jobs know; nothing when the server is away: check-in goes on without. */
export async function known<T>(what: 'customer' | 'model' | 'serial', text: string): Promise<T[]> {
  if (!text.trim()) return [];
  try {
    const answer = await fetch(`/api/known?${new URLSearchParams({ [what]: text.trim() })}`);
    return answer.ok ? ((await answer.json()) as T[]) : [];
  } catch {
    return [];
  }
}
