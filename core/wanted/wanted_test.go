package wanted_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/core/wanted"
)

func TestWordsOfAnOffer(t *testing.T) {
	for _, c := range []struct {
		offer, phrase string
		has           bool
	}{
		{"Memory card 4424-1, untested", "4424 1", true}, {"card 44241", "4424-1", true}, {"card 4424 10", "4424-1",
			false},
		{"two manuals", "manual", true}, {"one manual", "manuals", true}, {"glass case", "glas", false},
		{"manually wound", "manual", false}, {"KEYBOARD for a Meridian 2", "meridian 2", true},
		{"Meridian 20", "Meridian 2", false}, {"Meridian, 2 pieces", "Meridian 2", true}, // as written: one cannot tell
		{"a 1 b 2", "12", false}, {"", "a", false}, {"a", "", false}, {"é Ärmel", "ärmel", true},
	} {
		require.Equal(t, c.has, wanted.TextOf(c.offer).Has(c.phrase), "%q in %q", c.phrase, c.offer)
	}
}

func TestWantsAreFoundInOffers(t *testing.T) {
	wants := []wanted.Want{
		{ID: 1, What: "Service handbook of the Meridian 2", Alerts: []string{"service handbook", "4410 handbook"}},
		{ID: 2, What: "Keyboard", Alerts: []string{"lantern keyboard"}},
		{ID: 3, What: "Lantern"},
		{ID: 4, What: "MFM cable 34 pin", Alerts: []string{}},
		{ID: 5, What: "the", Alerts: []string{" "}},
	}
	for offer, want := range map[string][]wanted.Hit{
		"Service handbook, 1985": {{WantID: 1, By: []string{"service handbook"}}},
		"Lantern keyboard, yellowed": {{WantID: 2, By: []string{"lantern keyboard", "Keyboard"}},
			{WantID: 3, By: []string{"Lantern"}, Doubt: "ordinary"}},
		"a lantern for the garden":          {{WantID: 3, By: []string{"Lantern"}, Doubt: "ordinary"}},
		"34 leads, pin boxes, an mfm cable": {{WantID: 4, By: []string{"MFM cable 34 pin"}, Doubt: "not together"}},
		"MFM cables 34-pin, new":            {{WantID: 4, By: []string{"MFM cable 34 pin"}}},
		"nothing of the kind":               {},
		"The Meridian 2 handbook, for service": {{WantID: 1, By: []string{"Service handbook of the Meridian 2"},
			Doubt: "not together"}},
	} {
		hits := wanted.TextOf(offer).Find(wants)
		require.Len(t, hits, len(want), "%s: %v", offer, hits)
		for i := range hits {
			require.Equal(t, want[i].WantID, hits[i].WantID, offer)
			require.Equal(t, want[i].By, hits[i].By, offer)
			require.Contains(t, hits[i].Doubt, want[i].Doubt, offer)
			require.Equal(t, want[i].Doubt == "", hits[i].Doubt == "", offer)
		}
	}
}

func TestWhatIsHeldIsMetByItsName(t *testing.T) {
	held := []wanted.Named{{"Meridian 2", 3}, {"Lantern", 1}, {"4410-2", 2}, {"", 9}, {"Tern 16", 1}}
	require.Equal(t, []wanted.Met{{Name: "Meridian 2", Count: 3}, {Name: "Lantern", Count: 1,
		Doubt: "an ordinary word: it may mean something else"}, {Name: "4410-2", Count: 2}},
		wanted.TextOf("Meridian 2 with lantern, board 44102").Held(held))
	require.True(t, wanted.TextOf("Meridian 2, boxed, with keyboard").IsLike("keyboard of the Meridian 2"))
	require.False(t, wanted.TextOf("Meridian 2, boxed").IsLike("box"))
	require.False(t, wanted.TextOf("a box").IsLike("keyboard of the Meridian 2"))
}

func FuzzFind(f *testing.F) {
	f.Add("Service handbook", "handbook", "Lantern")
	f.Fuzz(func(t *testing.T, offer, alert, what string) {
		for _, hit := range wanted.TextOf(offer).Find([]wanted.Want{{ID: 1, What: what, Alerts: []string{alert}}}) {
			require.NotEmpty(t, hit.By)
		}
		if wanted.TextOf(offer).Has(alert) {
			require.True(t, wanted.TextOf("before "+offer+" behind").Has(alert), "more around it changes nothing")
		}
	})
}

// An offer of a page against a thousand wants and five thousand names of what is held.
func BenchmarkAnOffer(b *testing.B) {
	wants, held := []wanted.Want{}, []wanted.Named{}
	for i := range 1000 {
		wants = append(wants, wanted.Want{ID: int64(i), What: fmt.Sprintf("Handbook of the Meridian %d", i),
			Alerts: []string{fmt.Sprintf("handbook 44%d", i), "service sheet"}})
	}
	for i := range 5000 {
		held = append(held, wanted.Named{Name: fmt.Sprintf("44%d-%d", i, i%7), Count: 1})
	}
	offer := strings.Repeat("a box with papers, a handbook 44123 and cards 4417-3, all as found ", 40)
	for b.Loop() {
		text := wanted.TextOf(offer)
		text.Find(wants)
		text.Held(held)
	}
}
