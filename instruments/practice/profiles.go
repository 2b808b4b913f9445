package practice

import (
	"strings"

	"frugalheron/instruments/console"
)

// asPractice is the profile in which the console is that of the practice machine.
const asPractice = "practice machine"

// Profiles are what a console's stand-in can be told to be.
func Profiles() []string {
	return []string{"boot", "memory test failing", "prompt", "silence", "garbage", "no line end", asPractice}
}

const banner = "ESTUARY BENCH MONITOR V2.3\r\n"

// sayingOf is what a console says in a profile.
func sayingOf(profile string) console.Saying {
	switch profile {
	case "boot":
		return console.Saying{Text: banner + "CLOCK NOT SET\r\nMEMORY 064K\rMEMORY 128K\rMEMORY 192K\rMEMORY 256K OK\r\nDISK 0: 10 MB\r\n" +
			"LOADING ...\r\nHARBOUR DOS VERSION 2.1\r\nA>", Answer: answer}
	case "memory test failing":
		return console.Saying{Text: banner + "MEMORY TEST\r\n064K OK\r\nADDR 12A40 EXP FF ACT FB\r\n" +
			"ADDR 12A44 EXP AA ACT AE\r\nMEMORY TEST FAILED\r\n"}
	case "prompt":
		return console.Saying{Text: "\r\n>", Answer: answer}
	case "garbage":
		return console.Saying{Text: strings.Repeat("\xf3\x8f\x00x\xe1\x9c\x83", 30)}
	case "no line end":
		return console.Saying{Text: strings.Repeat("ENDLESS ", 1<<17)}
	}
	return console.Saying{}
}

// answer is what a monitor says to a line.
func answer(typed string) string {
	switch strings.ToUpper(strings.TrimSpace(typed)) {
	case "":
		return ">"
	case "VER":
		return banner + ">"
	case "MEM":
		return "TOTAL MEMORY 256K\r\n>"
	}
	return "?\r\n>"
}
