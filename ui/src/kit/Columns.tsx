import styled from 'styled-components'

import { isTexts, useLiked } from '../data/useLiked'
import { color, space } from '../theme'
import { Tick } from './Field'

export type Column<Key extends string> = { key: Key; title: string; isFixed?: boolean }

/** The columns of a list that somebody wants to see, kept for them; fixed ones always are. */
export function useColumns<Key extends string, One extends Column<Key>>(list: string, all: One[]) {
  const [hidden, hide] = useLiked(`columns of ${list}`, [], isTexts)
  const shown = all.filter(({ key, isFixed }) => isFixed === true || !hidden.includes(key))
  const choice = (
    <Fold>
      <summary>Columns</summary>
      <Ticks>
        {all.filter(({ isFixed }) => isFixed !== true).map(({ key, title }) => (
          <Tick key={key} label={title} isOn={!hidden.includes(key)}
            onChange={(isOn) => { hide(isOn ? hidden.filter((one) => one !== key) : [...hidden, key]) }} />
        ))}
      </Ticks>
    </Fold>
  )
  return { shown, choice }
}

const Fold = styled.details`
  position: relative;
  summary { padding: 4px ${space(1)}; color: ${color.slate}; cursor: pointer; }
`
const Ticks = styled.div`
  position: absolute;
  right: 0;
  z-index: 3;
  display: flex;
  flex-direction: column;
  width: 220px;
  padding: ${space(1)} ${space(2)};
  border: 1px solid ${color.line};
  background: ${color.sheet};
  box-shadow: 0 2px 8px rgb(20 25 28 / 20%);
`
