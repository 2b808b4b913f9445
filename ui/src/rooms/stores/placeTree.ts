import type { Schemas } from '../../api/client'

type Climate = Schemas['PlaceCount']['climate']
type Counted = { name: string; climate: Climate; machines: number; assemblies: number; parts: number }

/** A place among the others: how deep it lies, its own name, and what is there with all that lies in it. */
export type PlaceRow = { path: string; name: string; depth: number; machines: number; assemblies: number; parts: number;
  climate: Climate }

/** Puts places in order by building, room, shelf and box, which commas divide in their names. */
export function placeTree(places: Counted[]): PlaceRow[] {
  const rows = new Map<string, PlaceRow>()
  for (const place of places) {
    const parts = place.name.split(',').map((part) => part.trim()).filter(Boolean)
    parts.forEach((name, depth) => {
      const path = parts.slice(0, depth + 1).join(', ')
      const row = rows.get(path) ?? { path, name, depth, machines: 0, assemblies: 0, parts: 0, climate: '' }
      row.machines += place.machines
      row.assemblies += place.assemblies
      row.parts += place.parts
      rows.set(path, row)
    })
    const own = rows.get(parts.join(', '))
    if (own) own.climate = place.climate
  }
  return [...rows.values()].sort((a, b) => a.path.localeCompare(b.path, 'en'))
}
