/** How signs are written, as the forms show it. */
export const signsExample = `row power, ready, run, fault
lamps power, fault* | self-test | memory fails | reseat the memory card | Handbook, page 12
beeps 1 long 2 short | self-test | no display card
expect screen 384 KB OK | ready | all memory was found | | Handbook, page 3 | with 4424-1`

export const signsHint = 'Sign | during | meaning | look at next | how one knows | with or without a card. Signs are lamps, '
  + 'beeps, screen and code, with expect before what a sound machine shows; ? stands for one character, * for any'
