package sharing_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"frugalheron/core/sharing"
)

func TestWhatStopsFollowsFromWhereAPeripheralIs(t *testing.T) {
	keyboard := sharing.Thing{Title: "Keyboard, 83 keys", Place: "Shelf C"}
	serving := func(thing int64, of sharing.Thing, machine string) sharing.Service {
		return sharing.Service{ThingID: thing, Thing: of, Machine: machine, As: "Keyboard", Without: "nobody can type"}
	}
	both := func(of sharing.Thing) []sharing.Service {
		return []sharing.Service{serving(1, of, "EH-1"), serving(1, of, "EH-2")}
	}
	told := sharing.Judge(both(keyboard))
	assert.Equal(t, sharing.Standing{State: sharing.There, Why: "it lies at Shelf C", Others: []string{"EH-2"},
		Instead: []string{}, IsNeeded: true}, told[0])
	assert.Empty(t, sharing.VerdictOf(both(keyboard), told).Value)

	in := keyboard
	in.Machine = "EH-1"
	told = sharing.Judge(both(in))
	assert.Equal(t, sharing.There, told[0].State)
	assert.Equal(t, sharing.InUse, told[1].State)
	assert.Equal(t, "nobody can type", told[1].Stops)
	v := sharing.VerdictOf(both(in)[1:], told[1:])
	assert.Equal(t, "no Keyboard", v.Value)
	assert.Equal(t, "nobody can type: Keyboard, 83 keys serves it as Keyboard; it is in EH-1", v.Why[0].Text)

	spare := serving(2, sharing.Thing{Title: "Keyboard, old"}, "EH-2")
	spare.As = "keyboard"
	told = sharing.Judge(append(both(in), spare))
	assert.Empty(t, told[1].Stops)
	assert.Equal(t, []string{"Keyboard, old"}, told[1].Instead)
	assert.True(t, told[2].IsNeeded, "the other is in EH-1")

	for _, c := range []struct {
		thing sharing.Thing
		state sharing.State
		why   string
	}{
		{sharing.Thing{LentTo: "the club", Due: "2027-03-01"}, sharing.Lent, "it is lent to the club until 2027-03-01"},
		{sharing.Thing{Place: "Shelf", Broken: "cracked, U1"}, sharing.Bad, "it is not sound: cracked, U1"},
		{sharing.Thing{IsGone: true}, sharing.Gone, "it was struck out"},
	} {
		one := sharing.Judge([]sharing.Service{{Thing: c.thing, Machine: "EH-1", As: "supply"}})[0]
		assert.Equal(t, c.state, one.State)
		assert.Equal(t, c.why, one.Why)
		assert.Equal(t, "it has no supply", one.Stops)
	}
}
