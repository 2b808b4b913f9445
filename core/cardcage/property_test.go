package cardcage_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"frugalheron/core/cardcage"
	"frugalheron/core/configuration"
	"frugalheron/core/known"
	"frugalheron/core/slotplan"
)

// recorded are cards by their records, with what was noted of their settings.
type recorded struct {
	slot, settings, record string
	isCard                 bool
}

func (r recorded) card(t *rapid.T, id int64) cardcage.Card {
	details, problems := known.ParseDetails(r.record)
	require.Empty(t, problems, r.record)
	found, wrong := configuration.ParseSettings(r.settings)
	require.Empty(t, wrong, r.settings)
	c := cardcage.Card{ID: id, Title: fmt.Sprintf("Card %d", id), Part: fmt.Sprintf("44%02d", id), Kind: "board",
		Slot:  r.slot,
		Known: []string{"one"}, Details: []known.Details{details}, IsSure: true,
		Settings: configuration.Decode(details.Settings, found)}
	if r.isCard {
		c.Kind = "card"
	}
	return c
}

// Whatever the records say: what is proposed, done and written down makes everything go together, the moves can be done one
// after the other, and where there is no way a set of cards is named.
func TestWhatIsProposedGoesTogether(t *testing.T) {
	draw := rapid.Custom(func(t *rapid.T) recorded {
		r := recorded{isCard: true, slot: rapid.SampledFrom([]string{"", "1", "2", "3", "5"}).Draw(t, "slot")}
		lines := []string{"needs slot | " + rapid.SampledFrom([]string{"a", "b", "a or b"}).Draw(t, "kind")}
		for _, line := range []string{"chain passes", "stands first", "stands behind | 4401", "blocks +1", "wide 2",
			"uses irq | 3", "uses irq | 4, 5", "uses io | 300-31F | shared", "uses io | 310"} {
			if rapid.Float64Range(0, 1).Draw(t, line) < 0.2 {
				lines = append(lines, line)
			}
		}
		if rapid.Bool().Draw(t, "has a jumper") {
			lines = append(lines, "jumper JP1 | 1-2 = irq 3 | 2-3 = irq 4",
				"switch SW1.1-2 | on on = dma 1 | off on = dma 2")
			r.settings = rapid.SampledFrom([]string{"", "JP1 2-1", "JP1 2-3\nSW1 on on",
				"SW1.1 off\nSW1.2 on"}).Draw(t, "stands")
		}
		r.record = strings.Join(lines, "\n")
		return r
	})
	rapid.Check(t, func(t *rapid.T) {
		told := rapid.SliceOfN(draw, 1, 5).Draw(t, "cards")
		b, err := cardcage.Parse("row A | a | 1 2 3\nrow B | b | 4 5 6\nchain 1 2 3 6 5 4")
		require.NoError(t, err)
		fill := func(moves map[int64]string) cardcage.Cage {
			cards := []cardcage.Card{}
			for i, r := range told {
				cards = append(cards, r.card(t, int64(i+1)))
			}
			return cardcage.Fill(&b, cards, nil, moves)
		}
		cage := fill(nil)
		out, err := slotplan.Plan(cage.In)
		require.NoError(t, err)
		p := cage.Propose(out)
		if len(out.Assignment) == 0 {
			last := out.Problems[len(out.Problems)-1]
			require.Equal(t, slotplan.Impossible, last.Kind)
			require.NotEmpty(t, last.Cards)
			require.Empty(t, p.Moves)
			require.Empty(t, p.Sets)
			return
		}
		// Each slot is free when its card comes, but for those of a ring, which are out by then.
		in, ringed := map[string]bool{}, strings.Join(p.Notes, "; ")
		for _, one := range cage.In.Cards {
			if one.At != nil {
				in[*one.At] = true
			}
		}
		shared := len(in) < len(told) // two in one slot, or one that is nowhere
		moves := map[int64]string{}
		for _, m := range p.Moves {
			if !shared && !strings.Contains(ringed, "take out first") {
				require.False(t, in[m.To], "%s is still taken: %v", m.To, p.Moves)
			}
			delete(in, m.From)
			in[m.To] = true
			moves[m.AssemblyID] = m.To
		}
		for _, s := range p.Sets {
			r := &told[s.AssemblyID-1]
			r.settings = s.Written(r.settings)
		}
		after, err := slotplan.Plan(fill(moves).In)
		require.NoError(t, err)
		if strings.Contains(ringed, "would have to stand") {
			return // two settings that one switch makes: told
		}
		require.True(t, after.OK, "%v: %v then %v", told, p, after.Problems)
		require.Zero(t, after.Moves)
		require.Zero(t, after.Changes)
	})
}

func TestSlotsInTheReckoning(t *testing.T) {
	b, err := cardcage.Parse("row A | x | 1 2 3\nchain 1 2 3")
	require.NoError(t, err)
	passes := "needs slot | x\nchain passes\nuses irq | 3"
	value := func(b *cardcage.Backplane, cards ...cardcage.Card) string {
		return cardcage.Fill(b, cards, nil, nil).Verdict().Value
	}
	require.Empty(t, value(&b))
	require.Empty(t, value(&b, card(t, 1, "A", "card", "1", passes, "")))
	require.Equal(t, "2 fillers are missing", value(&b, card(t, 1, "A", "card", "3", passes, "")))
	require.Equal(t, "1 thing does not go together", value(&b, card(t, 1, "A", "card", "1", passes, ""),
		card(t, 2, "B", "card", "2", passes, "")))
	require.Equal(t, "1 thing does not go together", value(&b, card(t, 1, "A", "card", "1", passes, ""),
		card(t, 2, "B", "card", "3", passes, "")), "what is wrong goes before what is missing")
	rows := cardcage.Fill(nil, []cardcage.Card{card(t, 1, "Riser", "card", "2",
		"gives 2 slots | x\ngives 1 slot | y", ""),
		card(t, 2, "A", "card", "Riser 2", "", "")}, nil, nil).AllRows()
	require.Equal(t, []cardcage.Row{{Slots: []string{"2"}}, {Name: "Riser", Kind: "x", Slots: []string{"Riser 1",
		"Riser 2"}},
		{Name: "Riser", Kind: "y", Slots: []string{"Riser 3"}}}, rows)
}

// large is a backplane of 16 slots with 12 cards, each of which has choices.
func large(t testing.TB) (cardcage.Backplane, []cardcage.Card) {
	b, err := cardcage.Parse("row A | a | 1 2 3 4 5 6 7 8\nrow B | b | 9 10 11 12 13 14 15 16\ntakes b | a\n" +
		"chain 1 2 3 4 5 6 7 8 16 15 14 13 12 11 10 9\nrail +5 | 40 A")
	require.NoError(t, err)
	cards := []cardcage.Card{}
	for i := range 12 {
		details, problems := known.ParseDetails("needs slot | a\nchain passes\ncurrent +5 | 1.5 A\n" +
			"jumper JP1 | 1-2 = irq 3 | 2-3 = irq 4 | 3-4 = irq 5 | 5-6 = irq 6 | 7-8 = irq 7 | 9-10 = irq 9 | 11-12 = irq 10\n" +
			"uses irq | 3 | shared\nswitch SW1.1-2 | on on = io 300-30F | off on = io 310-31F | on off = io 320-32F | off off = io 330-33F")
		require.Empty(t, problems)
		settings, wrong := configuration.ParseSettings("JP1 2-1\nSW1 on on")
		require.Empty(t, wrong)
		if i > 3 { // no more windows than there are
			details.Settings = details.Settings[:1]
		}
		cards = append(cards, cardcage.Card{ID: int64(i + 1), Title: fmt.Sprintf("Card %d", i+1), Kind: "card",
			Slot:  fmt.Sprint(i + 3),
			Known: []string{"one"}, Details: []known.Details{details}, IsSure: true, Settings: configuration.Decode(details.Settings, settings)})
	}
	return b, cards
}

// All that share an interrupt may have it; windows that meet are set apart, and nothing has to move.
func TestALargePlanIsSettledByItsSettings(t *testing.T) {
	b, cards := large(t)
	cage := cardcage.Fill(&b, cards, nil, nil)
	out, err := slotplan.Plan(cage.In)
	require.NoError(t, err)
	p := cage.Propose(out)
	require.Empty(t, p.Moves)
	require.Len(t, p.Sets, 3)
	taken := map[string]bool{}
	for _, s := range p.Sets {
		require.Equal(t, "io", s.Resource)
		require.False(t, taken[s.To], "%s twice", s.To)
		taken[s.To] = true
	}
	require.Equal(t, []string{"1", "2", "16", "15"}, out.Fillers, "before the last card on the way of the bus")
	require.Equal(t, 22.0, *out.Rails["+5"].Headroom)
}

func BenchmarkSixteenSlotsAndTwelveCards(b *testing.B) {
	backplane, cards := large(b)
	for b.Loop() {
		cage := cardcage.Fill(&backplane, cards, nil, nil)
		out, err := slotplan.Plan(cage.In)
		if err != nil {
			b.Fatal(err)
		}
		cage.Propose(out)
	}
}
