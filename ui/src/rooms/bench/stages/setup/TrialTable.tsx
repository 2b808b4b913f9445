import styled from 'styled-components'

import type { Diagnosis } from '../../../../api/diagnosis'
import { Button } from '../../../../kit/Button'
import { Figure, Scroll, Whole } from '../../../../kit/ListTable'
import { Mark, type MarkKind } from '../../../../kit/Mark'
import { Faint } from '../../../../kit/Page'
import { color, font, space } from '../../../../theme'

const results: Record<Diagnosis['judged']['results'][number], { mark: MarkKind; word: string }> = {
  ok: { mark: 'done', word: 'went well' }, fail: { mark: 'problem', word: 'symptom' },
  sometimes: { mark: 'unknown', word: 'now and then' } }

/** A factor's letter: A to Z, then AA. */
const letterOf = (at: number): string =>
  (at >= 26 ? letterOf(Math.floor(at / 26) - 1) : '') + String.fromCharCode(65 + at % 26)

type Props = { diagnosis: Diagnosis; onTrial?: (at: number) => void; onFactor?: (at: number) => void }

/** Each trial with the state of all factors, how it went, and how many explanations it left: the path to the cause. */
export function TrialTable({ diagnosis, onTrial, onFactor }: Props) {
  const { factors = [], trials = [], judged } = diagnosis
  if (trials.length === 0)
    return <p><Faint>Nothing was tried yet. Begin with how it is now, with nothing changed.</Faint></p>
  return (
    <>
      <Letters aria-label="What was changed">{factors.map(({ name, danger }, at) => (
        <li key={name}>
          <b>{letterOf(at)}</b> {onFactor ? <Button $tone="quiet" aria-label={`About ${name}`}
            onPress={() => { onFactor(at) }}>{name}</Button> : name}
          {danger && <> <Mark kind="attention" /> <Faint>may hurt</Faint></>}
        </li>
      ))}</Letters>
      <Scroll>
        <Path>
          <thead>
            <tr><th>Trial</th>{factors.map(({ name }, at) => <th key={name} title={name}>{letterOf(at)}</th>)}
              <th>How it went</th><Figure as="th">Left</Figure><th>Note</th>{onTrial && <td />}</tr>
          </thead>
          <tbody>{trials.map(({ on, runs = 1, failed, day, note }, at) => {
            const result = results[judged.results[at] ?? 'sometimes']
            return (
              <tr key={at}>
                <Whole><strong>{at + 1}</strong> <Faint>{day}</Faint></Whole>
                {factors.map(({ name }) => <td key={name}>{on.includes(name) ? <On>on</On> : <Faint>-</Faint>}</td>)}
                <Whole><Mark kind={result.mark} /> {result.word}{runs > 1 && `, ${String(failed)} of ${String(runs)} failed`}</Whole>
                <Figure>{judged.left[at] || '-'}</Figure>
                <td><Faint>{note}</Faint></td>
                {onTrial && <td><Button $small $tone="quiet" aria-label={`Edit trial ${String(at + 1)}`}
                  onPress={() => { onTrial(at) }}>Edit</Button></td>}
              </tr>
            )
          })}</tbody>
        </Path>
      </Scroll>
    </>
  )
}

const Letters = styled.ul`
  padding: 0;
  list-style: none;
  b { display: inline-block; min-width: 24px; font-family: ${font.mono}; }
`
const Path = styled.table`
  width: 100%;
  border-collapse: collapse;
  background: ${color.sheet};
  th { color: ${color.faint}; font-size: 13px; text-align: left; }
  th, td { padding: 4px ${space(1)}; border-bottom: 1px solid ${color.line}; vertical-align: top; }
  td:has(> b) { background: ${color.slateGround}; }
`
const On = styled.b`
  font-weight: 600;
`
