import type { Schemas } from '../../api/client'
import type { ReckonedMachine } from '../../api/reckoning'

export type LineChange = Schemas['LineChange']
type ReckonedSince = Schemas['ReckonedSince']
type Moved = Pick<Schemas['BoardSince'], 'assemblyId' | 'after' | 'by'>

/** What turns one text of a sheet into another: the lines between those that both begin and end with. */
export function lineChange(assemblyId: number, older: string, later: string): LineChange {
  const [was, is] = [older.split('\n'), later.split('\n')]
  const most = Math.min(was.length, is.length)
  let head = 0
  while (head < most && was[head] === is[head]) head++
  let tail = 0
  while (tail < most - head && was[was.length - 1 - tail] === is[is.length - 1 - tail]) tail++
  return { assemblyId, from: head + 1, gone: was.length - head - tail, lines: is.slice(head, is.length - tail) }
}

/** The whole answer, from the one before and what is another since then; what stayed stays the same object. */
export function withSince(before: ReckonedMachine, { answer, stage, walk, left, ...since }: ReckonedSince,
): ReckonedMachine {
  const boards = since.boards.map((told) => {
    const old = before.boards.find(({ assemblyId }) => assemblyId === told.assemblyId)
    const board = { assemblyId: told.assemblyId, totals: told.totals,
      lines: withRows(countedOn(old?.lines ?? [], told), told.lines),
      records: withRows(countedOn(old?.records ?? [], told), told.records) }
    return old && board.lines === old.lines && board.records === old.records
      && JSON.stringify(old.totals) === JSON.stringify(told.totals) ? old : board
  })
  const moved = since.boards.filter(({ by }) => by !== 0)
  const old = new Map(before.verdicts.map((verdict) => [verdict.key, verdict]))
  const told = new Map(since.verdicts.map((one) => [one.verdict.key, one]))
  const verdicts = since.order.flatMap((key) => {
    const was = old.get(key)
    const is = told.get(key)
    if (is) return { ...is.verdict, why: spliced(movedReasons(was?.why ?? [], moved), is.why) }
    return was ? { ...was, why: movedReasons(was.why, moved) } : []
  })
  return { answer, stage, walk, left, boards, verdicts }
}

type Splice<Row> = { head: number; put: Row[]; tail: number }

/** Rows with those of some lines in place of what was told of them. */
function withRows<Row extends { line: number }>(rows: Row[], { gone, put }: { gone: number[]; put: Row[] }): Row[] {
  if (gone.length === 0 && put.length === 0) return rows
  const others = new Set([...gone, ...put.map(({ line }) => line)])
  return [...rows.filter(({ line }) => !others.has(line)), ...put].sort((a, b) => a.line - b.line)
}

const spliced = <Row>(rows: Row[], { head, put, tail }: Splice<Row>) =>
  [...rows.slice(0, head), ...put, ...rows.slice(rows.length - tail)]

const countedOn = <Row extends { line: number }>(rows: Row[], { after, by }: Moved) =>
  by === 0 ? rows : rows.map((row) => row.line > after ? { ...row, line: row.line + by } : row)

function movedReasons<Reason extends { spot: { assembly: number; line: number } | null }>(reasons: Reason[],
  moved: Moved[]): Reason[] {
  if (moved.length === 0) return reasons
  return reasons.map((reason) => {
    const { spot } = reason
    const move = spot && moved.find(({ assemblyId, after }) => assemblyId === spot.assembly && spot.line > after)
    return move ? { ...reason, spot: { ...spot, line: spot.line + move.by } } : reason
  })
}
