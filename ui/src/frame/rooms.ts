/** A room: the key that leads there after g, and other words by which it is looked for. */
export type Room = { key: string; path: string; name: string; words: string }

/** The rooms in the order of the bar. */
export const rooms: Room[] = [
  { key: 's', path: '/start', name: 'Start', words: 'home due' },
  { key: 'b', path: '/bench', name: 'Bench', words: 'machine in hand' },
  { key: 'c', path: '/collection', name: 'Collection', words: 'machines list shelves' },
  { key: 't', path: '/stores', name: 'Stores', words: 'loose boards cards' },
  { key: 'd', path: '/diary', name: 'Diary', words: 'history done due week calendar rounds plan' },
  { key: 'l', path: '/library', name: 'Library', words: 'types chips' },
]
