import type { Schemas } from '../api/client'
import { sure } from '../kit/sure'

export type Node = Schemas['NodeOut']
export interface Placed {
  node: Node
  column: number
  lane: number
  /** Index of the placed parent, or -1. */
  parent: number
}

/**
 * Lay a family of revisions out as a tree: in the order they were kept, a column each, the drafts last. A blend goes
 * on in its own lane; whatever else goes on from the same revision gets a lane of its own.
 */
export function layOut(nodes: Node[]): Placed[] {
  const order = [...nodes.filter((node) => node.kept_at), ...nodes.filter((node) => !node.kept_at)]
  // the blend at hand keeps the first lane, so its line reads straight through
  const root = order.find((node) => !node.parent)
  const heirs = new Map<string, string>()
  const ancestors = new Set<string>()
  const byId = new Map(order.map((node) => [node.id, node]))
  let at = order.find((node) => node.now) ?? root
  while (at) {
    ancestors.add(at.id)
    if (at.parent) heirs.set(at.parent, at.id)
    at = at.parent ? byId.get(at.parent) : undefined
  }
  for (const node of order) {
    const parent = node.parent && byId.get(node.parent)
    if (parent && !heirs.has(parent.id) && parent.blend_id === node.blend_id) heirs.set(parent.id, node.id)
  }
  const lanes = new Map<string, number>()
  let next = 1
  return order.map((node, column) => {
    const parent = order.findIndex((other) => other.id === node.parent)
    const inherits = node.parent !== null && heirs.get(node.parent ?? '') === node.id
    const lane = ancestors.has(node.id) ? 0 : inherits ? sure(lanes.get(sure(node.parent))) : next++
    lanes.set(node.id, lane)
    return { node, column, lane, parent }
  })
}
