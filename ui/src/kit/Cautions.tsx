import type { Schemas } from '../api/client'
import { Notice } from './Notice'

/** What to take care of at a step, once, in a bordered note. */
export function Cautions({ cautions }: { cautions: Schemas['Caution'][] }) {
  return cautions.map(({ key, word, text }) =>
    <Notice key={key} tone="attention" word={`Caution, ${word.toLowerCase()}.`}>{text}</Notice>)
}
