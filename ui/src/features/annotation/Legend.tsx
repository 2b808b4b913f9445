import { useEffect, useRef } from 'react'
import { Link } from 'react-router'
import styled from 'styled-components'

import type { AnnotationView } from '../../api/annotations'
import { Button } from '../../kit/Button'
import { Mark } from '../../kit/Mark'
import { Faint } from '../../kit/Page'
import { color, font } from '../../theme'
import { spotAddress } from '../../kit/spot'

type Props = {
  machineId: number
  told: AnnotationView
  chosen: string | undefined
  toPlace: string | undefined
  onChoose: (designator: string) => void
  onToPlace: (designator: string) => void
}

/** The numbers with their lines, what has no number yet, and numbers that stand for nothing on the sheet. */
export function Legend({ machineId, told, chosen, toPlace, onChoose, onToPlace }: Props) {
  const { numbered, unplaced } = told.legend
  const list = useRef<HTMLOListElement>(null)
  useEffect(() => {
    list.current?.querySelector<HTMLElement>('[data-chosen]')?.scrollIntoView({ block: 'nearest' })
  }, [chosen])
  return (
    <>
      <Numbers ref={list} aria-label="Legend">
        {numbered.map((one) => (
          <li key={one.designator} data-chosen={one.designator === chosen || undefined} onMouseEnter={() => { onChoose(one.designator) }}>
            <N>{one.n}</N>{' '}
            {one.line > 0 ? <Link to={spotAddress(machineId, { assembly: told.assemblyId, line: one.line })}>
              {one.designator}
            </Link> : <strong>{one.designator}</strong>}{' '}
            {one.line > 0 ? <Words>{one.words}</Words> : <><Mark kind="attention" /> not on the sheet</>}
          </li>
        ))}
      </Numbers>
      {numbered.length === 0 && <p>No number is on the picture yet.</p>}
      {unplaced.length > 0 && (
        <>
          <Below>Without a number</Below>
          <ul aria-label="Without a number">
            {unplaced.map(({ line, designators, words }) => (
              <li key={line}>
                {designators.map((designator) =>
                  toPlace === undefined ? <span key={designator}>{designator} </span> : (
                    <Button key={designator} $tone="quiet" aria-pressed={designator === toPlace} onPress={() => { onToPlace(designator) }}>
                      {designator === toPlace ? <strong>{designator}</strong> : designator}
                    </Button>
                  ),
                )}{' '}
                <Faint>{words}</Faint>
              </li>
            ))}
          </ul>
        </>
      )}
    </>
  )
}

const Numbers = styled.ol`
  max-height: 46vh;
  overflow-y: auto;
  position: relative;
  li { padding: 2px 4px; overflow-wrap: anywhere; }
  li[data-chosen] { background: ${color.slateGround}; }
  @media print { max-height: none; columns: 2; }
`
const Below = styled.h3`
  margin-top: 16px;
  font-size: 17px;
`
const N = styled.span`
  display: inline-block;
  min-width: 28px;
  font: 600 14px ${font.mono};
`
const Words = styled.span`
  font-family: ${font.mono};
`
