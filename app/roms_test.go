package app_test

import (
	"archive/zip"
	"bytes"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/app/dating"
	"frugalheron/app/inventory"
	"frugalheron/app/roms"
	"frugalheron/core/rom"
	"frugalheron/instruments/romreader"
	"frugalheron/store/blobs"
)

// monitor is what sits in U9 and, in another version, in its sibling.
var monitor = func() []byte {
	data := make([]byte, 16384)
	for i := range data {
		data[i] = byte(i*i>>4) ^ byte(i*7)
	}
	copy(data[5000:], "MONITOR V1.2 (C) 1985 TARN & VOLE")
	return data
}()

func chips(t *testing.T) (*app.App, inventory.Machine, inventory.Assembly) {
	_, actions, machine, board := newBoard(t, inventory.MachineInput{Maker: "Tarn & Vole", Model: "Meridian 2"},
		"== Main board | part 4410-2\nU1 HX9040 8530\nU9-U10 27128-25 8533 @socket\nU20-U22 74LS245 8534")
	kept, err := blobs.Open(ctx, t.TempDir())
	require.NoError(t, err)
	return actions.WithBlobs(kept), machine, board
}

func socketOf(t *testing.T, actions *app.App, machine int64, designator string) roms.RomSocket {
	sockets, err := actions.Roms.Roms(ctx, viewer, machine)
	require.NoError(t, err)
	at := slices.IndexFunc(sockets, func(s roms.RomSocket) bool { return s.Designator == designator })
	require.NotEqual(t, -1, at)
	return sockets[at]
}

func TestChipsAreReadAndKnownEverywhere(t *testing.T) {
	actions, machine, board := chips(t)
	of := roms.RomReading{Designator: "U9", Label: "MON V1.1"}
	add := func(of roms.RomReading, name string, data []byte) []roms.AddedRead {
		added, err := actions.Roms.AddRomFile(ctx, technician, board.ID, of, name, data)
		require.NoError(t, err)
		return added
	}
	require.Equal(t, rom.NotRead, socketOf(t, actions, machine.ID, "U10").Chip.State)
	added := add(of, "u9.bin", monitor)
	require.True(t, added[0].IsNew)
	require.Equal(t, rom.ReadOnce, added[0].Chip)
	records, err := rom.Encode(rom.HexRecords, 0xf000, monitor)
	require.NoError(t, err)
	added = add(of, "u9.hex", records)
	require.Equal(t, rom.HexRecords, added[0].Format)
	require.Equal(t, rom.Accepted, added[0].Chip)
	sum := added[0].SHA256
	u9 := socketOf(t, actions, machine.ID, "U9")
	require.Equal(t, []string{"the label says version 1.1, a text in it says 1.2"}, u9.Mismatches)
	require.Equal(t, "27128-25 8533", u9.Reads[0].Marking)

	// A zip: each file goes to the chip that it is called after.
	var archive bytes.Buffer
	w := zip.NewWriter(&archive)
	for _, name := range []string{"board/U10-first.bin", "board/U10-second.bin"} {
		f, err := w.Create(name)
		require.NoError(t, err)
		_, err = f.Write(append(slices.Clone(monitor[:8192]), monitor[:8192]...))
		require.NoError(t, err)
	}
	require.NoError(t, w.Close())
	both := add(roms.RomReading{Designator: "U9"}, "roms.zip", archive.Bytes())
	require.Equal(t, "U10", both[1].Designator)
	require.Equal(t, rom.Accepted, both[1].Chip)
	require.Contains(t, both[0].Warnings[0], "stands there twice")

	// Named once, known on another machine of the model; one that differs is pointed out on both.
	image, err := actions.Roms.Rom(ctx, technician, sum)
	require.NoError(t, err)
	named, err := actions.Roms.NameRom(ctx, technician, sum, image.Version,
		roms.RomInput{Name: "Monitor", Edition: "1.2"})
	require.NoError(t, err)
	var stale *action.Stale
	_, err = actions.Roms.NameRom(ctx, technician, sum, image.Version, roms.RomInput{Name: "Late"})
	require.ErrorAs(t, err, &stale)
	_, err = actions.Roms.NameRom(ctx, technician, sum, named.Version,
		roms.RomInput{Name: "Monitor", Public: true})
	require.ErrorIs(t, err, action.ErrForbidden) // who may have the bytes is the curator's to say
	other, err := actions.Inventory.CreateMachine(ctx, curator,
		inventory.MachineInput{Accession: "EH-0200", Name: "Second", Maker: "Tarn & Vole", Model: "Meridian 2"})
	require.NoError(t, err)
	twin, err := actions.Inventory.AddAssembly(ctx, technician, other.ID,
		inventory.AssemblyInput{Title: "Main board", Part: "4410-2"})
	require.NoError(t, err)
	_, err = actions.Sheets.SaveSheet(ctx, technician, twin.ID, 0, "U9 27128-25 8535")
	require.NoError(t, err)
	again, err := actions.Roms.AddRomFile(ctx, technician, twin.ID, roms.RomReading{Designator: "U9"}, "x.bin", monitor)
	require.NoError(t, err)
	require.False(t, again[0].IsNew)
	require.Equal(t, "Monitor 1.2", again[0].Known)
	changed := slices.Clone(monitor)
	copy(changed[2000:2400], bytes.Repeat([]byte{0x5a, 1, 9}, 200))
	for range 2 {
		_, err = actions.Roms.AddRomFile(ctx, technician, twin.ID, roms.RomReading{Designator: "U9"}, "x.bin", changed)
		require.NoError(t, err)
	}
	require.Contains(t, strings.Join(socketOf(t, actions, other.ID, "U9").Mismatches, ";"),
		"holds another content in its U9, Monitor 1.2 (related)")
	require.Contains(t, strings.Join(socketOf(t, actions, machine.ID, "U9").Mismatches, ";"),
		"EH-0200 holds another content")

	set, err := actions.Roms.NameRomSet(ctx, technician, board.ID, "Meridian 1.2", "")
	require.NoError(t, err)
	var invalid *action.Invalid
	_, err = actions.Roms.NameRomSet(ctx, technician, board.ID, "Meridian 1.2", "")
	require.ErrorAs(t, err, &invalid)
	sets, err := actions.Roms.RomSets(ctx, viewer)
	require.NoError(t, err)
	require.Equal(t, set.Name, sets[0].Name)
	require.Len(t, sets[0].Images, 2)
	require.Len(t, sets[0].Boards, 1) // the twin holds another content by now
	require.True(t, sets[0].Boards[0].Complete)

	// Years later it fades: urgent, and what was read first stays what counts.
	faded := slices.Clone(monitor)
	for _, at := range []int{100, 2100, 9100} {
		require.NotEqual(t, byte(0xff), faded[at])
		faded[at] |= faded[at] + 1
	}
	add(roms.RomReading{Designator: "U9"}, "later.bin", faded)
	u9 = socketOf(t, actions, machine.ID, "U9")
	require.Equal(t, rom.Fading, u9.Chip.State)
	require.Equal(t, sum, u9.Chip.SHA256)
	stage, err := actions.Bench.IdentifyStage(ctx, viewer, machine.ID)
	require.NoError(t, err)
	require.Equal(t, "needs attention", string(stage.State))
	event, err := actions.Roms.VoidRead(ctx, technician, u9.Reads[len(u9.Reads)-1].ID)
	require.NoError(t, err)
	require.Equal(t, rom.Accepted, socketOf(t, actions, machine.ID, "U9").Chip.State)
	require.NoError(t, actions.History.Undo(ctx, technician, event))
	require.Equal(t, rom.Fading, socketOf(t, actions, machine.ID, "U9").Chip.State)

	// Viewers have the sums of an image that is not public, and nothing of its bytes.
	seen, err := actions.Roms.Rom(ctx, viewer, sum)
	require.NoError(t, err)
	require.Equal(t, image.SHA1, seen.SHA1)
	require.Empty(t, seen.Inspection.Texts)
	_, _, err = actions.Roms.RomBytes(ctx, viewer, sum)
	require.ErrorIs(t, err, action.ErrForbidden)
	_, err = actions.Roms.RomHex(ctx, viewer, sum, 0, 16)
	require.ErrorIs(t, err, action.ErrForbidden)
	_, err = actions.Roms.NameRom(ctx, curator, sum, named.Version,
		roms.RomInput{Name: "Monitor", Edition: "1.2", Public: true})
	require.NoError(t, err)
	rows, err := actions.Roms.RomHex(ctx, viewer, sum, 5003, 20)
	require.NoError(t, err)
	require.Equal(t, 4992, rows[0].Offset)
	require.Contains(t, rows[0].Text, "MONITOR")

	lanes, err := actions.Roms.SplitRom(ctx, technician, sum, 2)
	require.NoError(t, err)
	merged, err := actions.Roms.MergeRoms(ctx, technician, []string{lanes[0].SHA256, lanes[1].SHA256})
	require.NoError(t, err)
	require.Equal(t, sum, merged.SHA256)
	dated, err := actions.Dating.Dating(ctx, viewer, machine.ID)
	require.NoError(t, err)
	require.True(t, slices.ContainsFunc(dated.Parts, func(p dating.DatedPart) bool {
		return p.Kind == "copyright" && p.From.Year == 1985
	}))
}

func TestFilesThatAreNoImage(t *testing.T) {
	actions, _, board := chips(t)
	of := roms.RomReading{Designator: "U9"}
	for want, data := range map[string][]byte{
		"it is empty":                {},
		"line 1: its checksum":       []byte(":0300300002337A1F\n:00000001FF"),
		"ends without the record":    []byte("S10600300233781C\n"),
		"the archive cannot be read": []byte("PK\x03\x04 and no more"),
		"an image has at most":       make([]byte, rom.MaxBytes+1),
	} {
		var invalid *action.Invalid
		_, err := actions.Roms.AddRomFile(ctx, technician, board.ID, of, "u9.bin", data)
		require.ErrorAs(t, err, &invalid, want)
		require.Contains(t, invalid.Why, want)
	}
	_, err := actions.Roms.AddRomFile(ctx, viewer, board.ID, of, "u9.bin", monitor)
	require.ErrorIs(t, err, action.ErrForbidden)
	var invalid *action.Invalid
	_, err = actions.Roms.AddRomFile(ctx, technician, board.ID, roms.RomReading{}, "u9.bin", monitor)
	require.ErrorAs(t, err, &invalid)
}

func TestTheReaderFindsWhatIsWrong(t *testing.T) {
	actions, machine, board := chips(t)
	_, err := actions.Roms.StartReading(ctx, technician, board.ID, roms.ReadingInput{Designator: "U9", Device: "27128"})
	var invalid *action.Invalid
	require.ErrorAs(t, err, &invalid) // none is set up
	standIn, err := romreader.NewStandIn(0, map[string]romreader.Chip{"U9": {Device: "27128", Data: monitor}},
		func(number string) int { return map[string]int{"27128": 16384}[number] })
	require.NoError(t, err)
	t.Cleanup(func() { standIn.Close() })
	actions.WithInstruments(app.Instruments{Reader: standIn.Address()})
	doJobs(t, actions)
	reader, err := actions.Roms.Reader(ctx, technician)
	require.NoError(t, err)
	require.Equal(t, romreader.Faults(), reader.Faults)
	_, err = actions.Roms.StartReading(ctx, technician, board.ID, roms.ReadingInput{Designator: "U9", Device: "2999"})
	require.ErrorAs(t, err, &invalid)

	ended := func(id int64) roms.ChipReading {
		var r roms.ChipReading
		require.Eventually(t, func() bool {
			var err error
			r, err = actions.Roms.ChipReading(ctx, technician, id)
			return err == nil && r.State != "running"
		}, 30*time.Second, 20*time.Millisecond)
		return r
	}
	read := func(fault string) roms.ChipReading {
		require.NoError(t, actions.Roms.PrepareStandIn(ctx, technician, "U9", fault))
		started, err := actions.Roms.StartReading(ctx, technician, board.ID,
			roms.ReadingInput{Designator: "U9", Device: "27128", Label: "MON"})
		require.NoError(t, err)
		return ended(started.ID)
	}
	require.Contains(t, read("bad contact").Note, "read differently each time")
	refused := read("address line")
	require.Equal(t, "refused", refused.State)
	require.Contains(t, refused.Note, "A6")
	require.Equal(t, rom.NotRead, socketOf(t, actions, machine.ID, "U9").Chip.State)

	// The link is lost again and again; each time it goes on where it stopped, and nothing is read twice.
	stopped := read("lost link")
	require.Equal(t, "stopped", stopped.State)
	require.Positive(t, stopped.Done)
	for stopped.State == "stopped" {
		before := stopped.Done
		_, err := actions.Roms.ResumeReading(ctx, technician, stopped.ID)
		require.NoError(t, err)
		stopped = ended(stopped.ID)
		require.Greater(t, stopped.Done, before)
	}
	require.Equal(t, "done", stopped.State, stopped.Note)
	require.Equal(t, 2*16384, stopped.Done)
	u9 := socketOf(t, actions, machine.ID, "U9")
	require.Equal(t, rom.Accepted, u9.Chip.State)
	require.Len(t, u9.Reads, 2)
	require.Equal(t, rom.SumsOf(monitor).SHA256, u9.Chip.SHA256)
	_, err = actions.Roms.ResumeReading(ctx, technician, stopped.ID)
	require.ErrorAs(t, err, &invalid)

	require.Contains(t, read("fading bit").Note, "fading")
	require.Equal(t, rom.Fading, socketOf(t, actions, machine.ID, "U9").Chip.State)

	require.NoError(t, actions.Roms.PrepareStandIn(ctx, technician, "U9", "slow link"))
	slow, err := actions.Roms.StartReading(ctx, technician, board.ID,
		roms.ReadingInput{Designator: "U9", Device: "27128"})
	require.NoError(t, err)
	_, err = actions.Roms.StartReading(ctx, technician, board.ID, roms.ReadingInput{Designator: "U10", Device: "27128"})
	require.ErrorAs(t, err, &invalid) // it is busy
	now, err := actions.Roms.StopReading(ctx, technician, slow.ID)
	require.NoError(t, err)
	require.Equal(t, "stopped", now.State)
}

// One reading may count alone, but only with a reason; then it is accepted, and struck out it is not.
func TestOneReadingCountsAloneWithAReason(t *testing.T) {
	actions, machine, board := chips(t)
	_, err := actions.Roms.AddRomFile(ctx, technician, board.ID, roms.RomReading{Designator: "U9"}, "u9.bin", monitor)
	require.NoError(t, err)
	once := socketOf(t, actions, machine.ID, "U9")
	require.Equal(t, rom.ReadOnce, once.Chip.State)
	var invalid *action.Invalid
	require.ErrorAs(t, actions.Roms.ExceptRead(ctx, technician, once.Reads[0].ID, "  "), &invalid)
	require.ErrorIs(t, actions.Roms.ExceptRead(ctx, viewer, once.Reads[0].ID, "because"), action.ErrForbidden)
	require.ErrorIs(t, actions.Roms.ExceptRead(ctx, technician, 999, "because"), action.ErrNotFound)
	require.NoError(t, actions.Roms.ExceptRead(ctx, technician, once.Reads[0].ID, "the chip did not survive the first"))
	require.Equal(t, rom.Accepted, socketOf(t, actions, machine.ID, "U9").Chip.State)
	history, err := actions.History.History(ctx, viewer, machine.ID, 0, 1)
	require.NoError(t, err)
	require.Equal(t, "let one reading of U9 count: the chip did not survive the first", history.Events[0].What)
	_, err = actions.Roms.VoidRead(ctx, technician, once.Reads[0].ID)
	require.NoError(t, err)
	require.Equal(t, rom.NotRead, socketOf(t, actions, machine.ID, "U9").Chip.State)
}
