package complement_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"frugalheron/core/complement"
)

func slots(l complement.Layout) (told []string) {
	for _, b := range l.Bays {
		told = append(told, b.Slot)
	}
	return told
}

func TestLayPutsEachWhereItSits(t *testing.T) {
	main := complement.Unit{ID: 1, Title: "Main board", Kind: "board", Gives: []complement.Slots{{Count: 3, Kind: "8-bit"}}}
	video := complement.Unit{ID: 2, Title: "Video card", Kind: "card", Slot: "slot 01", Covers: []string{"slot 2"}}
	disk := complement.Unit{ID: 3, Title: "Disk card", Kind: "card", Slot: "3"}
	supply := complement.Unit{ID: 4, Title: "Supply", Kind: "supply"}
	l := complement.Lay([]complement.Unit{main, video, disk, supply})
	assert.Equal(t, []int64{1}, l.Boards)
	assert.Equal(t, []string{"1", "2", "3"}, slots(l))
	assert.Equal(t, complement.Bay{Slot: "1", Kind: "8-bit", Units: []int64{2}}, l.Bays[0])
	assert.Equal(t, complement.Bay{Slot: "2", Kind: "8-bit", Units: []int64{}, CoveredBy: 2}, l.Bays[1])
	assert.Equal(t, []int64{4}, l.Others)
	assert.Empty(t, l.Remarks)

	second, lost, beyond := disk, video, disk
	second.ID, second.Title = 5, "Memory card"
	lost.ID, lost.Title, lost.Slot, lost.Covers = 6, "Relay card", "", nil
	beyond.ID, beyond.Title, beyond.Slot = 7, "Clock card", "9"
	l = complement.Lay([]complement.Unit{main, disk, second, lost, beyond})
	assert.Equal(t, []string{"1", "2", "3", "9"}, slots(l))
	assert.Equal(t, []string{"in which slot Relay card sits is not told",
		"Clock card is said to sit in slot 9; 3 are known",
		"Disk card and Memory card are said to sit in slot 3; look again"}, l.Remarks)

	main.Gives = nil
	disk.Slot = "A"
	l = complement.Lay([]complement.Unit{main, disk, beyond, video})
	assert.Equal(t, []string{"1", "9", "A"}, slots(l), "numbers by value, then names")
	assert.Contains(t, l.Remarks[0], "how many slots there are is not known")
	in := video
	in.ID, in.Slot, in.Covers = 8, "9", nil
	video.Covers = []string{"9"}
	assert.Contains(t, complement.Lay([]complement.Unit{main, video, in}).Remarks[0], "slot 9 is covered by Video card")
	assert.Empty(t, complement.Lay(nil).Bays)
}

// Slots that have names are called by them, and a number goes on counting behind those that have none.
func TestSlotsHaveNames(t *testing.T) {
	main := complement.Unit{ID: 1, Title: "Main board", Kind: "board",
		Gives: []complement.Slots{{Count: 2, Kind: "8-bit"}, {Count: 2, Kind: "16-bit", Names: []string{"slot X1",
			"02"}}}}
	l := complement.Lay([]complement.Unit{main, {ID: 2, Title: "Net card", Kind: "card", Slot: "slot X1"}})
	assert.Equal(t, []string{"1", "2", "2", "X1"}, slots(l))
	assert.Equal(t, []int64{2}, l.Bays[3].Units)
	for written, name := range map[string]string{"slot 03": "3", " No. 4": "4", "position B2": "B2", "Slot": "",
		"0": "0"} {
		assert.Equal(t, name, complement.NameOf(written), written)
	}
	assert.Negative(t, complement.Order("9", "10"))
	assert.Negative(t, complement.Order("10", "A"))
	assert.Negative(t, complement.Order("a", "B"))
}
