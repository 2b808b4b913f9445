package facts_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/core/facts"
)

func judgedFacts(t *testing.T, lines string) []facts.Fact {
	in := facts.Input{Now: "2026-11-29"}
	for i, line := range strings.Split(lines, ";") {
		cells := strings.Split(line, "|")
		constant := facts.Constant
		in.Statements = append(in.Statements, facts.Statement{ID: fmt.Sprint(i), Attribute: cells[0], Value: cells[1],
			Source: facts.Source(cells[2]), Nature: &constant})
	}
	judged, err := facts.Judge(in)
	require.NoError(t, err)
	require.Empty(t, judged.Problems)
	return judged.Facts
}

// Nothing follows from silence, and what is disputed of one is no difference.
func TestTwoThingsBesideEachOther(t *testing.T) {
	first := judgedFacts(t, "processor|HX8810|document;memory|64 KB|document;slots|5|document;slots|4|document;"+
		"screen|80x25/40x25|document;price|1480 GBP|hearsay;picture-memory|16 KB (eight 4116)|document")
	second := judgedFacts(t,
		"processor|hx 8810|label;processor|HX8812|hearsay;memory|65536 bytes|counted;slots|5|seen;"+
			"screen|40x25|seen;serial|417|label;picture-memory|16384 bytes|counted;colours|16|document")
	told := map[string]string{}
	for _, row := range facts.LayBeside(first, second) {
		told[row.Attribute] = string(row.State)
	}
	require.Equal(t, map[string]string{"processor": "different", "memory": "same", "slots": "disputed",
		"screen": "same",
		"price":  "unknown", "picture-memory": "same", "colours": "unknown"}, told)
	require.Empty(t, facts.LayBeside(nil, nil))
	require.True(t, facts.AttributeOf("memory").Same("64/256 KB", "256 KB"))
	require.False(t, facts.AttributeOf("memory").Same("64/256 KB", "128 KB"))
	require.False(t, facts.AttributeOf("memory").Same("64 KB", "much"))
}

func TestWhatAChipLost(t *testing.T) {
	address := facts.AttributeOf("hardware-address")
	require.True(t, address.IsLost("00:00:00:00:00:00"))
	require.True(t, address.IsLost("ff-ff-ff-ff-ff-ff"))
	require.False(t, address.IsLost("02:4B:11:00:2C:8E"))
	require.False(t, facts.AttributeOf("memory").IsLost("0"))
	told := []facts.Fact{{Attribute: "keeps", Subject: "U64", Now: &facts.Value{Value: "settings, hardware address"}}}
	require.Equal(t, "U64", facts.KeeperOf(told, address))
	require.Empty(t, facts.KeeperOf(told, facts.AttributeOf("host-name")))
	lost := facts.TellLost(address, "00:00:00:00:00:00", "U64", "flat since 2026-03-02", []facts.Restorative{
		{Value: "02:4B:11:00:2C:8F", Source: "recalled"}, {Value: "02:4B:11:00:2C:8E", Source: "label",
			Cited: "sticker"},
		{Value: "FF:FF:FF:FF:FF:FF", Source: "firmware"}})
	require.Equal(t,
		"Hardware address 00:00:00:00:00:00 is lost. U64 keeps it, and that is flat since 2026-03-02. Restore "+
			"02:4B:11:00:2C:8E, by the label (sticker). But what somebody recalls says 02:4B:11:00:2C:8F: settle that first.",
		lost.Words)
	require.Contains(t, facts.TellLost(address, "0", "", "", nil).Words, "Nobody has said for the model")
	require.Contains(t, facts.TellLost(address, "0", "U64", "", nil).Words, "nothing was found on that yet")
}
