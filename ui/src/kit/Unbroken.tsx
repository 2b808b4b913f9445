import styled from 'styled-components'

const day = /(\d{4}-\d{2}-\d{2})/

/** Words in which no date is broken at the end of a line. */
export function Unbroken({ text }: { text: string }) {
  return text.split(day).map((part, i) => (i % 2 ? <Whole key={i}>{part}</Whole> : part))
}

const Whole = styled.span`
  white-space: nowrap;
`
