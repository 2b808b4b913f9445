const key = 'heron.bench'

/** The machine that lay on the bench last on this device, if any. */
export function lastOnBench(): number | undefined {
  return Number(localStorage.getItem(key)) || undefined
}

export function putOnBench(machineId: number | undefined) {
  if (machineId) localStorage.setItem(key, String(machineId))
  else localStorage.removeItem(key)
}
