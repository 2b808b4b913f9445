export type Room = { key: string; path: string; name: string; later?: string }

/** The rooms in the order of the bar; `later` says what one that is not open yet will hold. */
export const rooms: Room[] = [
  { key: 'b', path: '/bench', name: 'Bench' },
  { key: 's', path: '/shelves', name: 'Shelves' },
  { key: 't', path: '/stores', name: 'Stores', later: 'Stores will hold the spare parts: what is on hand, what jobs need, what is on order.' },
  { key: 'd', path: '/diary', name: 'Diary' },
  { key: 'l', path: '/library', name: 'Library' },
]
