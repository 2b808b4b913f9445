package cardcage_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"frugalheron/core/cardcage"
	"frugalheron/core/configuration"
	"frugalheron/core/known"
	"frugalheron/core/slotplan"
)

// card is one whose record is of its own, with its settings as they were found.
func card(t *testing.T, id int64, title, kind, slot, record, settings string) cardcage.Card {
	t.Helper()
	c := cardcage.Card{ID: id, Title: title, Part: fmt.Sprintf("44%02d", id), Kind: kind, Slot: slot, IsSure: true}
	if record == "" {
		return c
	}
	details, problems := known.ParseDetails(record)
	require.Empty(t, problems)
	found, wrong := configuration.ParseSettings(settings)
	require.Empty(t, wrong)
	c.Known, c.Details = []string{title}, []known.Details{details}
	c.Settings = configuration.Decode(details.Settings, found)
	return c
}

func planned(t *testing.T, c cardcage.Cage) (slotplan.Output, cardcage.Rearrangement) {
	t.Helper()
	out, err := slotplan.Plan(c.In)
	require.NoError(t, err)
	return out, c.Propose(out)
}

func problems(out slotplan.Output) []string {
	told := []string{}
	for _, p := range out.Problems {
		told = append(told, fmt.Sprintf("%s %s", p.Kind, strings.Join(p.Cards, ", ")))
	}
	return told
}

const disk = "needs slot | 8-bit\njumper JP2 | 1-2 = irq 3 | 2-3 = irq 4\ncurrent +5 | 0.6 A"

func TestWhatIsRecordedBecomesAPlan(t *testing.T) {
	main := card(t, 1, "Main board", "board", "", "gives 3 slots | 8-bit\ncurrent +5 | 2 A\nuses irq | 0", "")
	cards := []cardcage.Card{main, card(t, 2, "Modem", "card", "slot 1", "needs slot | 8-bit\nuses irq | 3", ""),
		card(t, 3, "Disk card", "card", "2", disk, "JP2 1-2"), card(t, 4, "Clock card", "card", "", "", "")}
	c := cardcage.Fill(nil, cards, map[string]float64{"+5": 5}, nil)
	out, p := planned(t, c)
	assert.Equal(t, []string{"overlap Modem, Disk card"}, problems(out))
	assert.Equal(t, []cardcage.Set{{AssemblyID: 3, Card: "Disk card", Resource: "irq", From: "3", To: "4",
		Ways: []cardcage.Way{{Setting: "JP2", At: "2-3"}}}}, p.Sets)
	assert.Equal(t, []cardcage.Move{{AssemblyID: 4, Card: "Clock card", To: "3"}}, p.Moves)
	assert.Equal(t, 2.6, out.Rails["+5"].Draw)
	assert.Equal(t, map[string]bool{"Modem": true, "Clock card": true}, c.Unknown)
	assert.Equal(t, []string{"nothing is known of Clock card: neither what it needs nor which slots it fits"}, c.Remarks)

	// What a board uses itself is met as well, and what is thought elsewhere counts there; a slot that is taken is told.
	c = cardcage.Fill(nil, append(cards, card(t, 5, "Relay card", "card", "3", "uses irq | 0", "")), nil,
		map[int64]string{4: "",
			3: "1"})
	out, p = planned(t, c)
	assert.Equal(t, []string{"overlap Modem, Disk card", "overlap Main board, Relay card", "overlap Modem, Disk card",
		"impossible Main board, Relay card"}, problems(out))
	assert.Empty(t, p.Moves)
	assert.True(t, c.IsBoard("Main board"))
	assert.Equal(t, int64(3), c.IDOf("Disk card"))
	assert.Contains(t, c.Remarks, "which slots Relay card fits nobody said")
}

func TestASerpentineWithAFiller(t *testing.T) {
	b, err := cardcage.Parse("chassis Cage\nrow top | quad | 1 2 3\nrow bottom | quad | 4 5 6 # runs back\nchain 1 2 3 6 5 4\nrail +5 | 3 A")
	require.NoError(t, err)
	passes := "needs slot | quad\nchain passes\ncurrent +5 | 1 A"
	cards := []cardcage.Card{card(t, 1, "Processor", "card", "1", "needs slot | quad\nchain passes\nstands first\ncurrent +5 | 1 A", ""),
		card(t, 2, "Memory", "card", "3", passes, ""), card(t, 3, "Serial", "card", "5", passes, "")}
	out, p := planned(t, cardcage.Fill(&b, cards, map[string]float64{"+5": 99}, nil))
	assert.True(t, out.OK)
	assert.Equal(t, []string{"2", "6"}, out.Fillers)
	assert.Equal(t, 0.0, *out.Rails["+5"].Headroom, "what is written goes before what the supply says")
	assert.Empty(t, p.Moves)
	out, p = planned(t, cardcage.Fill(&b, cards, nil, map[int64]string{1: "6"}))
	assert.False(t, out.OK)
	assert.Len(t, p.Moves, 1, "one move is enough, whichever")
}

func TestWhatIsNotSureIsTold(t *testing.T) {
	b, err := cardcage.Parse("row A | 16-bit | 1 2\ntakes 16-bit | 8-bit\nchain 1")
	require.NoError(t, err)
	unsure := card(t, 1, "Video card", "card", "1", "needs slot | 8-bit, long\nstands behind | 4403\nblocks +1\nblocks 7", "")
	unsure.IsSure = false
	both := card(t, 2, "Disk card", "card", "9", disk, "")
	both.Known, both.Details = append(both.Known, "Tape card"), append(both.Details, both.Details[0])
	c := cardcage.Fill(&b, []cardcage.Card{unsure, both, card(t, 3, "Extender", "card", "2",
		"gives 2 slots | 8-bit | X1 2", ""),
		card(t, 4, "Disk card", "card", "X1", "stands beside | Disk card", "")}, nil, nil)
	for _, remark := range []string{"Video card covers or blocks 7, which is no slot of the plan",
		"it is not sure that Video card is a Video card; the plan takes it for one", "Video card is long: see that its slot has the room",
		"how Video card takes part in the chain nobody said; the plan takes its slot as bridged",
		"Disk card is said to sit in slot 9, which the backplane does not have", "how Disk card is set for irq nobody noted",
		"two records say as firmly what Disk card is; the plan goes by Disk card",
		"Extender is said to give slot 2, which is there without it", "the chain goes by 1 of 2 slots"} {
		assert.Contains(t, c.Remarks, remark)
	}
	out, _ := planned(t, c)
	assert.Contains(t, problems(out), "blocks Video card, Extender")
	assert.Equal(t, "Disk card (2)", c.NameOf(4))
	kinds := map[string][]string{}
	for _, one := range c.In.Cards {
		kinds[one.ID] = one.Kinds
	}
	assert.Equal(t, []string{"16-bit", "8-bit"}, kinds["Video card"], "the wider slot takes it")
	assert.Equal(t, []string{"Extender"}, c.In.Cards[0].After)
	assert.Equal(t, "Disk card", *c.In.Cards[3].Beside)
}

func TestMovesAreInAnOrderThatCanBeDone(t *testing.T) {
	b, err := cardcage.Parse("row A | 8-bit | 1\nrow B | 16-bit | 2\nrow C | 32-bit | 3")
	require.NoError(t, err)
	of := func(kind string) string { return "needs slot | " + kind }
	_, p := planned(t, cardcage.Fill(&b, []cardcage.Card{card(t, 1, "A", "card", "2", of("8-bit"), ""),
		card(t, 2, "B", "card", "3", of("16-bit"), "")}, nil, nil))
	assert.Equal(t, []string{"A", "B"}, []string{p.Moves[0].Card, p.Moves[1].Card}, "slot 2 is free by then")
	_, p = planned(t, cardcage.Fill(&b, []cardcage.Card{card(t, 1, "A", "card", "2", of("8-bit"), ""),
		card(t, 2, "B", "card", "1", of("16-bit"), "")}, nil, nil))
	assert.Equal(t, []string{"take out first, as they change places: A"}, p.Notes)
}

func TestSettingsThatOneSwitchMakesTogether(t *testing.T) {
	record := "needs slot | 8-bit\nswitch SW1 | on = irq 3, io 300-31f | off = irq 4, io 320-33F\nuses irq | 3, 4 | shared"
	cards := []cardcage.Card{card(t, 1, "Main", "board", "", "gives 4 slots | 8-bit", ""), card(t, 2, "Net", "card",
		"1", record, "SW1 on"),
		card(t, 3, "Modem", "card", "2", "uses io | 310-317", ""), card(t, 4, "Mouse", "card", "3",
			"uses irq | 3 | shared", "")}
	_, p := planned(t, cardcage.Fill(nil, cards, nil, nil))
	require.Len(t, p.Sets, 1, "the interrupt may be shared, so it stays")
	assert.Equal(t, "320-33F", p.Sets[0].To)
	cards[3] = card(t, 4, "Mouse", "card", "3", "uses irq | 4", "")
	cards[1] = card(t, 2, "Net", "card", "1", strings.Replace(record, "SW1 |", "SW1.1 |", 1), "")
	_, p = planned(t, cardcage.Fill(nil, cards, nil, nil))
	assert.Equal(t, []string{"SW1.1 of Net would have to stand for irq 3 and io 320-33F at once; look for another way"}, p.Notes)
	// A setting that is noted in words counts, and a position that takes nothing takes nothing.
	one := card(t, 2, "Net", "card", "1", "uses irq | 3, 4\njumper JP1 | 1-2 = dma 1 | open = no channel", "irq 4\nJP1 open")
	c := cardcage.Fill(nil, []cardcage.Card{one}, nil, nil)
	require.Len(t, c.In.Cards[0].Needs, 1)
	assert.Equal(t, "4", c.In.Cards[0].Needs[0].Now.String())
}

func TestWhatIsNoBackplane(t *testing.T) {
	for text, why := range map[string]string{"row A | 8-bit": "line 1: says no slots",
		"\nslot 3":          `line 2: begins with "slot"`,
		"row A | x | 1 2 1": "slot 1 again", "row A | x | 1\nrow B | x | 01": "slot 1 again",
		"chain 1":                   "slot 1, which no row has",
		"row A | x | 1\nchain 1, 1": "twice", "takes x": "says no kinds", "rail five | 1 A": "no rail",
		"rail +5 | 1 V":  "in V",
		"base +5 | -1 A": "-1 A", "rail +5 | 1 A\nrail +5 | 2 A": "names +5 again",
	} {
		_, err := cardcage.Parse(text)
		require.ErrorContains(t, err, why, text)
	}
	many := ""
	for i := range 201 {
		many += fmt.Sprintf("row %d | x | s%d\n", i, i)
	}
	_, err := cardcage.Parse(many)
	require.ErrorContains(t, err, "at most 200")
}

func FuzzParse(f *testing.F) {
	f.Add("chassis A\nrow A | 8-bit | 1 2 3\nchain 1 3\ntakes 16-bit | 8-bit or x\nrail +5 | 20 A\nbase +5 | 1 A", "Disk card", "2", disk)
	f.Fuzz(func(t *testing.T, text, title, slot, record string) {
		b, err := cardcage.Parse(text)
		if err != nil {
			return
		}
		details, _ := known.ParseDetails(record)
		c := cardcage.Fill(&b, []cardcage.Card{{ID: 1, Title: title, Kind: "card", Slot: slot, Known: []string{title},
			Details: []known.Details{details}}, {ID: 2, Title: title, Kind: "board", Known: []string{title},
			Details: []known.Details{details}}}, nil, nil)
		if out, err := slotplan.Plan(c.In); err == nil {
			c.Propose(out)
		} else if strings.TrimSpace(title) != "" && !strings.Contains(err.Error(), "more than") {
			t.Fatalf("records make a plan that cannot be: %v", err)
		}
	})
}

func TestWhatWasSetIsWrittenDown(t *testing.T) {
	one := cardcage.Set{Resource: "irq", To: "4", Ways: []cardcage.Way{{Setting: "JP2", At: "2-3"}}}
	assert.Equal(t, "JP3 on\nJP2 2-3", one.Written("JP2 1-2\nJP3 on\nirq 3"))
	one.Ways = append(one.Ways, cardcage.Way{Setting: "JP3", At: "off"})
	assert.Equal(t, "irq 4", one.Written("JP2 1-2\nJP3 on"))
	one.Ways = nil
	assert.Equal(t, "JP2 1-2\nirq 4", one.Written("JP2 1-2"))
}
