const key = 'heron.bench'

/** The machine that lay on the bench last on this device, if any. */
export function lastOnBench(): number | undefined {
  return Number(localStorage.getItem(key)) || undefined
}

const stageKey = 'heron.bench.stage'

/** The stage that one was in last on this device; empty for none. */
export const lastStage = () => localStorage.getItem(stageKey) ?? ''

export function beInStage(stage: string) { localStorage.setItem(stageKey, stage) }

export function putOnBench(machineId: number | undefined) {
  if (machineId) localStorage.setItem(key, String(machineId))
  else localStorage.removeItem(key)
}
