export type Room = { key: string; path: string; name: string }

/** The rooms in the order of the bar. */
export const rooms: Room[] = [
  { key: 's', path: '/start', name: 'Start' },
  { key: 'b', path: '/bench', name: 'Bench' },
  { key: 'c', path: '/collection', name: 'Collection' },
  { key: 't', path: '/stores', name: 'Stores' },
  { key: 'd', path: '/diary', name: 'Diary' },
  { key: 'l', path: '/library', name: 'Library' },
]
