import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import styled from 'styled-components'

import { type Merged, mergeQuery, type Revision, type Stretch } from '../../../../api/assemblies'
import { messageOf } from '../../../../api/problem'
import { Button, Buttons } from '../../../../kit/Button'
import { Notice } from '../../../../kit/Notice'
import { color, font, space } from '../../../../theme'
import { Conflict } from './Conflict'
import { type Choices, everywhere, merged, spot, undecided } from './mergeChoices'

type Props = {
  assemblyId: number
  base: number
  mine: string
  theirs: Revision
  onSave: (text: string) => void
  onTakeTheirs: () => void
}

/** Two people changed one sheet: what comes of both, line by line, before it is saved. */
export function MergeSheet({ assemblyId, base, mine, theirs, onSave, onTakeTheirs }: Props) {
  const merge = useQuery({ ...mergeQuery(assemblyId, base, mine, theirs.n),
    placeholderData: (previous: Merged | undefined) => previous })
  const [choices, setChoices] = useState<Choices>({})
  const stretches = merge.data?.stretches ?? []
  const conflicts = stretches.filter(({ kind }) => kind === 'conflict')
  const open = undecided(stretches, choices).length
  const who = theirs.by || 'Somebody else'

  return (
    <Notice tone="attention" word="Changed meanwhile.">
      {who} saved revision {theirs.n} while you were writing. Nothing was overwritten.
      {merge.error && <p>The two could not be merged: {messageOf(merge.error)}</p>}
      {merge.data && (
        <>
          <p>
            {conflicts.length === 0
              ? 'You changed different lines, so both stay. This of theirs comes into your sheet:'
              : 'Where both of you changed the same lines, choose; the rest is merged. Theirs, and where you meet:'}
          </p>
          <Changes tabIndex={0} aria-label={`What revision ${String(theirs.n)} changed`}>
            {stretches.map((stretch, i) => {
              if (stretch.kind === 'theirs') return <Theirs key={i} stretch={stretch} />
              if (stretch.kind !== 'conflict') return null
              const key = spot(stretch)
              return (
                <Conflict key={i} stretch={stretch} who={who} choice={choices[key]}
                  onChoose={(choice) => { setChoices({ ...choices, [key]: choice }) }} />
              )
            })}
          </Changes>
          <Buttons>
            <Button $tone="main" isDisabled={open > 0 || merge.isPlaceholderData}
              onPress={() => { onSave(merged(stretches, choices)) }}>Save both together</Button>
            {conflicts.length > 1 && <Button onPress={() => { setChoices(everywhere(stretches, 'mine')) }}>
              Yours everywhere
            </Button>}
            {conflicts.length > 1 && <Button onPress={() => { setChoices(everywhere(stretches, 'theirs')) }}>
              Theirs everywhere
            </Button>}
            <Button onPress={onTakeTheirs}>Drop yours, take revision {theirs.n}</Button>
            {open > 0 && <span>{open === 1 ? '1 choice' : `${String(open)} choices`} to make</span>}
          </Buttons>
        </>
      )}
    </Notice>
  )
}

function Theirs({ stretch }: { stretch: Stretch }) {
  return (
    <Lines>
      {stretch.base.map((line, i) => <del key={`-${String(i)}`}>- {line}</del>)}
      {stretch.theirs.map((line, i) => <ins key={`+${String(i)}`}>+ {line}</ins>)}
    </Lines>
  )
}

const Changes = styled.div`
  display: flex;
  flex-direction: column;
  gap: ${space(1)};
  max-height: 320px;
  overflow: auto;
  margin: ${space(1)} 0;
`
const Lines = styled.pre`
  margin: 0;
  padding: 4px ${space(1)};
  overflow-x: auto;
  background: ${color.sheet};
  color: ${color.ink};
  font: 14px/22px ${font.mono};
  del, ins { display: block; text-decoration: none; }
  del { color: ${color.rust}; }
  ins { background: ${color.slateGround}; color: ${color.slate}; }
`
