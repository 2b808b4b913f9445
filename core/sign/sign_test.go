package sign_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"frugalheron/core/sign"
)

const meridian = `
row power, ready, run, fault   # from the left
radix hex
fields 7-4 bank, 3-0 chip
lamps power | off | the supply runs, nothing else | measure the rails | Handbook, page 2
expect lamps power, ready | ready | waits for a disk
lamps power, fault* | self-test | memory fails | reseat the memory card | Handbook, page 12
lamps 1??1 | self-test | some fault
beeps 1 long 2 short | self-test | no display card
beeps 1-3-2 | self-test | memory
screen BANK ? AT ????, MEMORY* | self-test | a chip of that bank fails
expect screen 128 KB OK | ready | all memory was found | | Handbook, page 3 | without 4424-1
expect screen 512 KB OK | ready | all memory was found | | Handbook, page 3 | with 4424-1
screen *KB OK | ready | not all memory was found | reseat the memory card
code E? | self-test | a chip of bank E
code 41 | self-test | no keyboard
code 41 | ready | no disk
`

func lists(t testing.TB, texts ...string) []sign.List {
	told := []sign.List{}
	for _, text := range texts {
		table, problems := sign.Parse(text)
		require.Empty(t, problems)
		told = append(told, sign.List{Of: "Meridian 2", Table: table})
	}
	return told
}

func TestReadSaysWhatASignMeansAndWhatSpeaksAgainstIt(t *testing.T) {
	card := sign.Card{Title: "Memory card", Part: "TV 4424-1"}
	nameless := sign.Card{Title: "Card in slot 3"}
	for name, c := range map[string]struct {
		seen    sign.Seen
		cards   sign.Cards
		outcome sign.Outcome
		meaning string
		why     string
	}{
		"lamps by name": {sign.Seen{Kind: sign.Lamps, Text: "Ready, power", State: "ready"}, nil, sign.AsExpected,
			"waits for a disk", ""},
		"lamps as bits": {sign.Seen{Kind: sign.Lamps, Text: "1 1 0 0", State: "Ready"}, nil, sign.AsExpected,
			"waits for a disk", ""},
		"the exact line before the wide one": {sign.Seen{Kind: sign.Lamps, Text: "100*"}, nil, sign.Listed,
			"memory fails", ""},
		"another than expected": {sign.Seen{Kind: sign.Screen, Text: "384 kb  ok", State: "ready"}, nil,
			sign.NotExpected, "not all memory was found", "expected during ready is 128 KB OK"},
		"expected with the card": {sign.Seen{Kind: sign.Screen, Text: "512 KB OK", State: "ready"},
			sign.Cards{card}, sign.AsExpected, "all memory was found", ""},
		"what the record says cannot be": {sign.Seen{Kind: sign.Screen, Text: "128 KB OK", State: "ready"},
			sign.Cards{card}, sign.NotExpected, "not all memory was found", "expected during ready is 512 KB OK"},
		"a card nobody can name": {sign.Seen{Kind: sign.Screen, Text: "384 KB OK", State: "ready"},
			sign.Cards{nameless}, sign.Listed, "not all memory was found", "perhaps 128 KB OK or 512 KB OK is expected " +
				"during ready; whether 4424-1 is fitted is not known: Card in slot 3 has no part number"},
		"a card that left that day": {sign.Seen{Kind: sign.Screen, Text: "384 KB OK", State: "ready"},
			sign.Cards{{Title: "Memory card", Part: "4424-1", Doubt: "Memory card left on that day"}}, sign.Listed,
			"not all memory was found", "perhaps 128 KB OK or 512 KB OK is expected during ready; whether 4424-1 was " +
				"fitted is not known: Memory card left on that day"},
		"beeps with pauses": {sign.Seen{Kind: sign.Beeps, Text: "beep pause 3 beeps / 2 beeps"}, nil, sign.Listed,
			"memory", ""},
		"beeps": {sign.Seen{Kind: sign.Beeps, Text: "long, short, short."}, nil, sign.Listed, "no display card", ""},
		"beeps of untold length": {sign.Seen{Kind: sign.Beeps, Text: "3 beeps"}, nil, sign.Perhaps, "no display card",
			"which beeps are long is not told of both"},
		"a line of a screen": {sign.Seen{Kind: sign.Screen, Text: "SELF-TEST\nbank 2 at 0f40, memory bad"}, nil,
			sign.Listed, "a chip of that bank fails", ""},
		"an O for a zero": {sign.Seen{Kind: sign.Screen, Text: "512 KB 0K", State: "ready"}, sign.Cards{card},
			sign.Perhaps, "all memory was found", "it agrees only if an O is a 0, or an I or an L a 1"},
		"a code in the radix of the list": {sign.Seen{Kind: sign.Code, Text: "0x41", State: "self-test"}, nil,
			sign.Listed, "no keyboard", ""},
		"a code in another radix": {sign.Seen{Kind: sign.Code, Text: "0b01000001", State: "self-test"}, nil,
			sign.Listed, "no keyboard", ""},
		"a code of which the time is not told": {sign.Seen{Kind: sign.Code, Text: "41"}, nil, sign.Listed,
			"no keyboard",
			"what a sound machine shows is not told; 2 meanings are listed: say what the machine was doing"},
		"digits that stand for any": {sign.Seen{Kind: sign.Code, Text: "0xe7"}, nil, sign.Listed,
			"a chip of bank E", ""},
		"a lamp the row does not have": {sign.Seen{Kind: sign.Lamps, Text: "power, ready, disk", State: "ready"}, nil,
			sign.Perhaps, "waits for a disk", "its row has no lamp disk"},
		"a lamp nobody looked at": {sign.Seen{Kind: sign.Lamps, Text: "11?0", State: "ready"}, nil, sign.Perhaps,
			"waits for a disk", "nobody looked at run"},
		"lamps of another number": {sign.Seen{Kind: sign.Lamps, Text: "11000"}, nil, sign.Unmatched, "",
			"no line agrees with it; Meridian 2: 11000 are 5 lamps, the row has 4: power, ready, run, fault"},
		"only lamps the row does not have": {sign.Seen{Kind: sign.Lamps, Text: "disk"}, nil, sign.Unmatched, "",
			"no line agrees with it; Meridian 2: its row has no lamp disk"},
	} {
		t.Run(name, func(t *testing.T) {
			require.NoError(t, c.seen.Check())
			r := sign.Read(c.seen, lists(t, meridian), c.cards)
			assert.Equal(t, c.outcome, r.Outcome, r.Why)
			if c.meaning == "" {
				assert.Empty(t, r.Matches)
			} else if assert.NotEmpty(t, r.Matches) {
				assert.Equal(t, c.meaning, r.Matches[0].Meaning)
			}
			if c.why != "" {
				assert.Equal(t, c.why, r.Why)
			}
		})
	}
}

// Where nobody says what the machine was doing, a sign of several times is as expected only if it is at each.
func TestWhatIsExpectedAtOneTimeOnlyIsNotTakenForAllTimes(t *testing.T) {
	const text = "expect lamps 11 | ready | the disk turns\nlamps 11 | self-test | the disk is stuck\n" +
		"expect lamps 10 | self-test | it counts\nexpect lamps 10 | ready | it waits"
	read := func(lamps, state string) sign.Comparison {
		return sign.Read(sign.Seen{Kind: sign.Lamps, Text: lamps, State: state}, lists(t, text), nil)
	}
	assert.Equal(t, sign.Listed, read("11", "").Outcome)
	assert.Contains(t, read("11", "").Why, "2 meanings are listed: say what the machine was doing")
	assert.Equal(t, sign.AsExpected, read("11", "ready").Outcome)
	assert.Equal(t, sign.NotExpected, read("11", "self-test").Outcome)
	assert.Equal(t, sign.AsExpected, read("10", "").Outcome)
}

func TestReadTellsWhatStoodAtTheWildcards(t *testing.T) {
	r := sign.Read(sign.Seen{Kind: sign.Screen, Text: "BANK 2 AT 0F40, MEMORY BAD"}, lists(t, meridian), nil)
	require.NotEmpty(t, r.Matches)
	assert.Equal(t, []string{"2", "0F40", "BAD"}, r.Matches[0].At)
	r = sign.Read(sign.Seen{Kind: sign.Code, Text: "E7"}, lists(t, meridian), nil)
	require.Len(t, r.Words, 1)
	assert.Equal(t, "347", r.Words[0].Octal)
	assert.Equal(t, "bank", r.Words[0].Fields[0].Name)
	assert.Equal(t, uint64(14), r.Words[0].Fields[0].Value)
}

func TestReadTellsWhatComesNearest(t *testing.T) {
	r := sign.Read(sign.Seen{Kind: sign.Lamps, Text: "power, run", State: "ready"}, lists(t, meridian), nil)
	assert.Equal(t, sign.Unmatched, r.Outcome)
	require.NotEmpty(t, r.Nearest)
	assert.Equal(t, []string{"ready"}, r.Nearest[0].Missing)
	assert.Equal(t, []string{"run"}, r.Nearest[0].Extra)
	r = sign.Read(sign.Seen{Kind: sign.Lamps, Text: "1100", State: "self-test"}, lists(t, meridian), nil)
	require.NotEmpty(t, r.Nearest)
	assert.Equal(t, []string{"it is listed for ready"}, r.Nearest[0].Differs)
	r = sign.Read(sign.Seen{Kind: sign.Code, Text: "41"}, lists(t, "code 0x41 | any | no keyboard"), nil)
	assert.Equal(t, sign.Unmatched, r.Outcome, "41 of no told radix is 41, not 65")
	require.NotEmpty(t, r.Nearest)
	assert.Contains(t, r.Nearest[0].Differs[0], "the same figures in another radix")
	r = sign.Read(sign.Seen{Kind: sign.Beeps, Text: "2 long"}, lists(t, "row a, b"), nil)
	assert.Equal(t, sign.NoList, r.Outcome)
}

func TestWhatIsExpectedFollowsFromTheCards(t *testing.T) {
	of := lists(t, meridian)
	shown := func(cards sign.Cards) (met, unsure []string) {
		for _, e := range sign.Expected(of, cards, "ready") {
			switch {
			case e.Kind != sign.Screen:
			case e.Holds == sign.Met:
				met = append(met, e.Shown)
			default:
				unsure = append(unsure, e.Shown)
			}
		}
		return met, unsure
	}
	met, unsure := shown(sign.Cards{{Title: "Main board", Part: "4410-2"}})
	assert.Equal(t, []string{"128 KB OK"}, met)
	assert.Empty(t, unsure)
	met, _ = shown(sign.Cards{{Title: "Card", Known: []string{"4424-1", "Memory card"}}})
	assert.Equal(t, []string{"512 KB OK"}, met)
	met, unsure = shown(sign.Cards{{Title: "Card"}})
	assert.Empty(t, met, "a card without a number may be it, or not")
	assert.Equal(t, []string{"128 KB OK", "512 KB OK"}, unsure)
	assert.Equal(t, []string{"off", "ready", "self-test"}, sign.States(of))
}

// Of each kind at each time only the newest counts; what is expected asks for nothing, what is listed with something to
// look at asks for that.
func TestTheVerdictIsAboutWhatWasShownLast(t *testing.T) {
	of := lists(t, meridian)
	shown := func(kind sign.Kind, text, state, on string) sign.Shown {
		seen := sign.Seen{Kind: kind, Text: text, State: state}
		return sign.Shown{Seen: seen, On: on, Comparison: sign.Read(seen, of, nil)}
	}
	v := sign.VerdictOf([]sign.Shown{
		shown(sign.Screen, "384 KB OK", "ready", "2026-05-04"),
		shown(sign.Lamps, "power, fault*", "self-test", "2026-05-03"),
		shown(sign.Lamps, "0110", "self-test", "2026-05-02"), // past
		shown(sign.Lamps, "power, ready", "Ready", "2026-05-02"),
		shown(sign.Code, "77", "", "2026-05-01"),
	})
	assert.Equal(t, "1 not as expected, 1 to look into, 1 nobody can read", v.Value)
	require.Len(t, v.Why, 4)
	assert.Equal(t, "screen 384 KB OK on 2026-05-04: not all memory was found; expected during ready is 128 KB OK",
		v.Why[0].Text)
	assert.Equal(t, "lamps power, fault* on 2026-05-03: memory fails; next: reseat the memory card", v.Why[1].Text)
	well := sign.VerdictOf([]sign.Shown{shown(sign.Lamps, "1100", "ready", "2026-05-02")})
	assert.Equal(t, "as listed", well.Value)
	assert.Empty(t, well.State)
	open := shown(sign.Code, "77", "", "2026-05-01")
	open.IsExplained = true
	assert.Empty(t, sign.VerdictOf([]sign.Shown{open}).Value, "somebody found out what it means")
	assert.Empty(t, sign.VerdictOf(nil).Value)
}

func TestLinesThatCannotBeReadAreNamed(t *testing.T) {
	for text, want := range map[string]string{
		"blink 3 | any | x":                        "begins with \"blink\"",
		"lamps | any | x":                          "does not say what is shown",
		"lamps 11":                                 "does not say what it means",
		"row a, b\nlamps 110 | any | x":            "110 are 3 lamps, the row has 2",
		"row a, b\nlamps a, c | any | x":           "names lamps that are not in the row: c",
		"lamps 1 | any | x\nrow a":                 "write the row first",
		"row a, A":                                 "names the lamp A twice",
		"beeps 3 horns | any | x":                  "\"horns\" is no beep",
		"radix 16":                                 "is no radix",
		"fields 3-7 bank":                          "the high bit goes first",
		"code 1 | any | x | | | beside 4424-1":     "names no cards",
		"code 1 | any | x\ncode 1 | | x":           "says again what line 1 says",
		"expect":                                   "has nothing behind expect",
		"screen " + strings.Repeat("A", 401) + "|": "more than 400 characters",
	} {
		_, problems := sign.Parse(text)
		if assert.Len(t, problems, 1, text) {
			assert.Contains(t, problems[0].Message, want)
		}
	}
	assert.Error(t, sign.Seen{Kind: sign.Beeps, Text: "a horn"}.Check())
	assert.Error(t, sign.Seen{Kind: sign.Screen, Text: " "}.Check())
}

// Whatever is written, nothing breaks, and a line agrees with what it says itself where nothing in it is a wildcard.
func FuzzRead(f *testing.F) {
	f.Add(meridian, "lamps", "1100", "ready")
	f.Add(`screen A\|B\* | any | x`, "screen", "A|B*", "")
	f.Add("code 0x4? | x | y", "code", "4Fh", "x")
	f.Fuzz(func(t *testing.T, text, kind, seen, state string) {
		table, _ := sign.Parse(text)
		of := []sign.List{{Of: "it", Table: table}}
		r := sign.Read(sign.Seen{Kind: sign.Kind(kind), Text: seen, State: state}, of, nil)
		assert.NotEmpty(t, r.Why)
		assert.Equal(t, r.Outcome.IsOpen(), r.Outcome != sign.AsExpected && r.Outcome != sign.NotExpected &&
			r.Outcome != sign.Listed)
		for _, s := range table.Signs {
			if strings.ContainsAny(s.Shown, `?*\`) || strings.ToValidUTF8(s.Shown, "") != s.Shown {
				continue
			}
			own := sign.Read(sign.Seen{Kind: s.Kind, Text: s.Shown, State: s.State}, of, nil)
			assert.NotEmpty(t, own.Matches, s.Shown)
		}
	})
}

// What was seen, against a list of 300 signs.
func BenchmarkRead(b *testing.B) {
	text := strings.Builder{}
	for i := range 300 {
		fmt.Fprintf(&text, "screen BANK ? CHIP %d AT ????, MEMORY* | self-test | a chip fails\n", i)
	}
	of := lists(b, text.String())
	for b.Loop() {
		sign.Read(sign.Seen{Kind: sign.Screen, Text: "SELF-TEST\nBANK 2 CHIP 299 AT 0F40, MEMORY BAD"}, of, nil)
	}
}
