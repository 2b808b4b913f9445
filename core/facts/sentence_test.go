package facts_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"frugalheron/core/facts"
)

func TestSentenceSaysWhatIsKnownAndWhatIsDisputed(t *testing.T) {
	settled := func(attribute, value string) facts.Fact {
		return facts.Fact{Attribute: attribute, State: facts.Settled, Now: &facts.Value{Value: value}}
	}
	known := []facts.Fact{settled("maker", "Tarn & Vole"), settled("model", "Meridian 2"),
		settled("built", "1985-10/1986-04"), settled("memory", "1 MB"),
		{Attribute: "memory", Subject: "card", State: facts.Disputed}}
	assert.Equal(t, "Tarn & Vole Meridian 2, built 1985-10 to 1986-04, with processor HX9040, 1 MB of memory and 24 KB of "+
		"ROM.", facts.Sentence("Meridian", known, facts.Holding{Processors: []string{"HX9040"}, ROM: "24 KB"}))
	known[2], known[3] = facts.Fact{Attribute: "built", State: facts.Open}, facts.Fact{Attribute: "memory",
		State: facts.Disputed}
	assert.Equal(t, "Tarn & Vole Meridian 2. Disputed: memory.", facts.Sentence("Meridian", known, facts.Holding{}))
	assert.Equal(t, "Lamp, with 2 KB of ROM.", facts.Sentence("Lamp", nil, facts.Holding{ROM: "2 KB"}))
}
