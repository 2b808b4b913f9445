package sign

import (
	"fmt"
	"strings"

	"frugalheron/core/verdict"
)

// Shown is what a machine showed on a day.
type Shown struct {
	Seen
	On          string
	Comparison  Comparison
	IsExplained bool // somebody found out what it means, though no line tells
}

var (
	signOpen = verdict.NewSentence("sign-open", "{seen} on {on}: {why}")
	signBad  = verdict.NewSentence("sign-not-as-expected", "{seen} on {on}: {meaning}; {why}")
	signLook = verdict.NewSentence("sign-look", "{seen} on {on}: {meaning}; next: {next}")
	signSeen = verdict.NewSentence("sign-means", "{seen} on {on}: {meaning}")
)

// VerdictOf says what a machine showed last, of each kind in each state; what it showed before is past. The newest goes
// first in shown.
func VerdictOf(shown []Shown) verdict.Verdict {
	v := verdict.Verdict{Key: "signs", Label: "Shows"}
	told, bad, open, look := map[string]bool{}, 0, 0, 0
	for _, s := range shown {
		key := string(s.Kind) + "\n" + strings.ToLower(s.State)
		if told[key] {
			continue
		}
		told[key] = true
		seen := verdict.Word(string(s.Kind) + " " + firstLine(s.Text))
		r := s.Comparison
		switch {
		case r.Outcome.IsOpen() && !s.IsExplained:
			open++
			v.Why = append(v.Why, signOpen.Because(seen, s.On, r.Why))
		case r.Outcome.IsOpen():
		case r.Outcome == NotExpected:
			bad++
			v.Why = append(v.Why, signBad.Because(seen, s.On, r.Matches[0].Meaning, r.Why))
		case r.Outcome == Listed && r.Matches[0].Next != "":
			look++
			v.Why = append(v.Why, signLook.Because(seen, s.On, r.Matches[0].Meaning, r.Matches[0].Next))
		default:
			v.Why = append(v.Why, signSeen.Because(seen, s.On, r.Matches[0].Meaning))
		}
	}
	parts := []string{}
	if bad > 0 {
		parts = append(parts, fmt.Sprintf("%d not as expected", bad))
	}
	if look > 0 {
		parts = append(parts, fmt.Sprintf("%d to look into", look))
	}
	if open > 0 {
		parts = append(parts, fmt.Sprintf("%d nobody can read", open))
	}
	switch {
	case len(parts) > 0:
		v.Value, v.State = strings.Join(parts, ", "), verdict.Attention
	case len(v.Why) > 0:
		v.Value = "as listed"
	}
	return v
}

func firstLine(text string) string {
	first, _, isLonger := strings.Cut(strings.TrimSpace(text), "\n")
	letters := []rune(first)
	if len(letters) > 60 || isLonger {
		return string(letters[:min(len(letters), 60)]) + " ..."
	}
	return first
}
