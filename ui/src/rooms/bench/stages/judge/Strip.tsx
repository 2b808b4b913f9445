import type { Condition } from '../../../../api/judge'
import { ListTable, Scroll } from '../../../../kit/ListTable'
import { Part } from '../../../../kit/Part'
import { GradeSquare } from './GradeSquare'

/** The condition over the years: a row for each subsystem, a column for each survey. */
export function Strip({ condition }: { condition: Condition }) {
  const { surveys, strip } = condition
  if (surveys.length === 0) return null
  return (
    <Part title="Over the years" faint={surveys.length === 1 ? '1 survey' : `${String(surveys.length)} surveys`}>
      <StripTable condition={condition} />
      {strip.rows.length === 0 && <p>No subsystem was looked at.</p>}
    </Part>
  )
}

export function StripTable({ condition: { surveys, strip } }: { condition: Condition }) {
  return (
    <Scroll tabIndex={0} role="group" aria-label="Subsystems over the surveys">
      <ListTable>
        <thead><tr><th>Subsystem</th>{surveys.map(({ id, on, by }) => <th key={id} title={by}>{on}</th>)}</tr></thead>
        <tbody>
          {strip.rows.map((row) => (
            <tr key={row.subsystem}>
              <th scope="row">{row.name}</th>
              {row.squares.map((square) => <td key={square.surveyId}><GradeSquare grade={square.grade} /></td>)}
            </tr>
          ))}
          <tr>
            <th scope="row">Machine, technical</th>
            {strip.technical.map((square) => <td key={square.surveyId}><GradeSquare grade={square.grade} /></td>)}
          </tr>
          <tr>
            <th scope="row">Cosmetic</th>
            {surveys.map(({ id, cosmetic }) => <td key={id}>{cosmetic || 'not given'}</td>)}
          </tr>
        </tbody>
      </ListTable>
    </Scroll>
  )
}
