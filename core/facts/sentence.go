package facts

import (
	"strings"
)

// Holding is what a machine is counted to hold.
type Holding struct {
	Processors []string // their numbers
	ROM        string   // how much, with its unit; empty for none
}

// Sentence says in one sentence what a machine is, by what is known of it, and in another what of that is disputed. What is open
// is left out.
func Sentence(name string, known []Fact, holds Holding) string {
	told, disputed := map[string]string{}, []string{}
	for _, f := range known {
		switch {
		case f.Subject != "":
		case f.State == Settled && f.Now != nil:
			told[f.Attribute] = f.Now.Value
		case f.State == Disputed:
			disputed = append(disputed, strings.ToLower(AttributeOf(f.Attribute).Label))
		}
	}
	is := strings.TrimSpace(told["maker"] + " " + told["model"])
	if is == "" {
		is = name
	}
	s := strings.Builder{}
	s.WriteString(is)
	if built := told["built"]; built != "" {
		s.WriteString(", built " + strings.ReplaceAll(built, "/", " to "))
	}
	parts := []string{}
	for _, number := range holds.Processors {
		parts = append(parts, "processor "+number)
	}
	if memory := told["memory"]; memory != "" {
		parts = append(parts, memory+" of memory")
	}
	if holds.ROM != "" {
		parts = append(parts, holds.ROM+" of ROM")
	}
	if len(parts) > 0 {
		s.WriteString(", with " + listed(parts))
	}
	s.WriteString(".")
	if len(disputed) > 0 {
		s.WriteString(" Disputed: " + listed(disputed) + ".")
	}
	return s.String()
}

func listed(parts []string) string {
	if len(parts) == 1 {
		return parts[0]
	}
	return strings.Join(parts[:len(parts)-1], ", ") + " and " + parts[len(parts)-1]
}
