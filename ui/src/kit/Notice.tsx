import type { ReactNode } from 'react'
import styled from 'styled-components'

import { color, radius, space } from '../theme'
import { Mark } from './Mark'

type Tone = 'attention' | 'stop'

/** A bordered note with a shape and a word, where it matters; announced when it appears. */
export function Notice({ tone, word, children }: { tone: Tone; word: string; children: ReactNode }) {
  return (
    <Box $tone={tone} role={tone === 'stop' ? 'alert' : 'status'}>
      <Mark kind={tone === 'stop' ? 'problem' : 'attention'} />
      <div>
        <strong>{word}</strong> {children}
      </div>
    </Box>
  )
}

const Box = styled.div<{ $tone: Tone }>`
  display: flex;
  gap: ${space(1)};
  padding: ${space(1)} ${space(2)};
  border: 1px solid ${({ $tone }) => ($tone === 'stop' ? color.rust : color.amber)};
  border-radius: ${radius};
  background: ${({ $tone }) => ($tone === 'stop' ? color.rustGround : color.amberGround)};
  svg { margin-top: 4px; }
`
