import type { Wiring } from '../../../../api/openup'

/** From where to where a plug goes, and which way round, as the map has it. */
export function howItSits(wiring: Wiring, name: string): string {
  const one = wiring.connectors.find((candidate) => candidate.name.toLowerCase() === name.toLowerCase())
  if (!one) return ''
  const words = [one.toBoard && `to ${[one.toBoard, one.toPlace].filter(Boolean).join(' ')}`,
    one.pin1 && `pin 1: ${one.pin1}`, one.key && `key: ${one.key}`, one.colours && `wires: ${one.colours}`,
      one.free.socket.length > 0 && `${String(one.free.socket.length)} pins of the socket stay free`]
  return ` ${words.filter(Boolean).join('; ') || 'how it sits is not written down'}`
}
