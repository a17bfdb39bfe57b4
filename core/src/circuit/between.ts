import type { Network } from './network.ts';

interface Edge {
  readonly a: string;
  readonly b: string;
  readonly element: string | undefined;
}

/**
 * The part of a network that a measurement between terminals can feel: every element that lies on some path
 * between them that visits no node twice. All else carries no current and moves no reading, exactly: it is the
 * biconnected component that holds an edge laid between the terminals (Hopcroft and Tarjan 1973).
 *
 * @param terminals pairs of nodes joined by a meter or a supply; they share one component.
 */
export function networkBetween(network: Network, terminals: readonly (readonly [string, string])[]): Network {
  const edges: Edge[] = [
    ...terminals.map(([a, b]): Edge => ({ a, b, element: undefined })),
    ...network.resistors.map((r): Edge => ({ a: r.a, b: r.b, element: r.name })),
    ...network.junctions.map((j): Edge => ({ a: j.anode, b: j.cathode, element: j.name })),
    ...(network.emfs ?? []).map((e): Edge => ({ a: e.plus, b: e.minus, element: e.name })),
  ];
  const kept = new Set(
    biconnected(edges)
      .filter((component) => component.some((e) => e < terminals.length))
      .flatMap((component) => component.map((e) => edges[e]!.element)),
  );
  return {
    resistors: network.resistors.filter((r) => kept.has(r.name)),
    junctions: network.junctions.filter((j) => kept.has(j.name)),
    emfs: network.emfs?.filter((e) => kept.has(e.name)),
  };
}

/** Edge indices of each biconnected component. */
function biconnected(edges: readonly Edge[]): number[][] {
  const around = new Map<string, number[]>();
  edges.forEach((edge, i) => {
    for (const node of [edge.a, edge.b]) around.set(node, [...(around.get(node) ?? []), i]);
  });
  const order = new Map<string, number>();
  const low = new Map<string, number>();
  const stack: number[] = [];
  const components: number[][] = [];
  const visit = (node: string, through: number): void => {
    order.set(node, order.size);
    low.set(node, order.get(node)!);
    for (const e of around.get(node)!) {
      if (e === through) continue;
      const next = edges[e]!.a === node ? edges[e]!.b : edges[e]!.a;
      if (!order.has(next)) {
        const mark = stack.length;
        stack.push(e);
        visit(next, e);
        low.set(node, Math.min(low.get(node)!, low.get(next)!));
        if (low.get(next)! >= order.get(node)!) components.push(stack.splice(mark));
      } else if (order.get(next)! < order.get(node)!) {
        stack.push(e);
        low.set(node, Math.min(low.get(node)!, order.get(next)!));
      }
    }
  };
  for (const node of around.keys()) if (!order.has(node)) visit(node, -1);
  return components;
}
