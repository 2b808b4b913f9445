import type { Role } from '../../api/people'

/** What an account is for, in words. */
export const roles: [Option, Option, Option] = [
  { value: 'curator', text: 'curator: keeps the record and the accounts' },
  { value: 'technician', text: 'technician: writes sheets, moves parts' },
  { value: 'viewer', text: 'viewer: looks' },
]

type Option = { value: Role; text: string }
