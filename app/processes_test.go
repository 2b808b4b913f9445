package app_test

import (
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/app/inventory"
	"frugalheron/app/library"
	"frugalheron/app/roms"
	"frugalheron/core/rom"
	"frugalheron/instruments/romreader"
	"frugalheron/jobs"
	"frugalheron/store/blobs"
)

// Two processes on one database: what one has begun the other sees, leaves alone, stops and goes on with; what one
// names the other knows at once.
func TestTwoProcessesAreOneApplication(t *testing.T) {
	db, one, machine, board := newBoard(t, inventory.MachineInput{},
		"== Main board\nU9 27128-25 8533 @socket\nU10 HX7200")
	store, err := blobs.Open(ctx, t.TempDir())
	require.NoError(t, err)
	two := app.New(db).WithBlobs(store)
	one.WithBlobs(store)
	standIn, err := romreader.NewStandIn(0, map[string]romreader.Chip{"U9": {Device: "27128", Data: monitor}},
		func(string) int { return 16384 })
	require.NoError(t, err)
	t.Cleanup(func() { standIn.Close() })
	one.WithInstruments(app.Instruments{Reader: standIn.Address()})
	two.WithInstruments(app.Instruments{Reader: standIn.Address()})
	stopOne := doJobs(t, one)
	reading := roms.ReadingInput{Designator: "U9", Device: "27128"}
	state := func(by *app.App, id int64, wanted string) (now roms.ChipReading) {
		require.Eventually(t, func() bool {
			now = must(by.Roms.ChipReading(ctx, technician, id))
			return now.State == wanted
		}, time.Minute, 20*time.Millisecond, "it never was %s", wanted)
		return now
	}

	require.NoError(t, one.Roms.PrepareStandIn(ctx, technician, "U9", "slow link"))
	started := must(one.Roms.StartReading(ctx, technician, board.ID, reading))
	state(two, started.ID, "running")
	var invalid *action.Invalid
	_, err = two.Roms.StartReading(ctx, technician, board.ID, reading)
	require.ErrorAs(t, err, &invalid)
	require.Contains(t, invalid.Why, "it is reading U9 still")
	_, err = two.Roms.ResumeReading(ctx, technician, started.ID)
	require.ErrorAs(t, err, &invalid)

	// The other stops it, and goes on where it stopped.
	require.Equal(t, "stopped", must(two.Roms.StopReading(ctx, technician, started.ID)).State)
	time.Sleep(600 * time.Millisecond) // the first keeps what it had in hand, and notices
	stopped := must(one.Roms.ChipReading(ctx, technician, started.ID))
	require.Equal(t, "stopped", stopped.State)
	require.NoError(t, two.Roms.PrepareStandIn(ctx, technician, "U9", "none"))
	must(two.Roms.ResumeReading(ctx, technician, started.ID))
	done := state(one, started.ID, "done")
	require.Equal(t, 2*16384, done.Done, "nothing was read twice")
	require.Equal(t, rom.Accepted, socketOf(t, one, machine.ID, "U9").Chip.State)

	// What a process is at when it ends, another goes on with.
	require.NoError(t, one.Roms.PrepareStandIn(ctx, technician, "U9", "slow link"))
	left := must(one.Roms.StartReading(ctx, technician, board.ID, reading))
	require.Eventually(t, func() bool { return must(one.Roms.ChipReading(ctx, technician, left.ID)).Done > 0 },
		time.Minute, 10*time.Millisecond)
	stopOne()
	kept := must(two.Roms.ChipReading(ctx, technician, left.ID))
	require.Equal(t, "running", kept.State)
	require.Less(t, kept.Done, 2*16384)
	require.NoError(t, two.Roms.PrepareStandIn(ctx, technician, "U9", "none"))
	doJobs(t, two)
	require.Equal(t, 2*16384, state(two, left.ID, "done").Done, "nothing was read twice")

	// One that was left for so long that somebody has the reader read another chip waits to be gone on with.
	db.MustExec(`UPDATE chip_reading SET state = 'running', got = '', updated_at = now() - interval '1 minute' WHERE id = $1`,
		left.ID)
	require.Contains(t, state(two, left.ID, "stopped").Note, "by itself")
	// Another process reads it: nobody here has the reader.
	var other int64
	require.NoError(t, db.Get(&other, `INSERT INTO chip_reading
		(assembly_id, designator, device, label, exception, size, account_id, state, updated_at)
		SELECT assembly_id, designator, device, label, exception, size, account_id, 'running', now() + interval '1 hour'
		FROM chip_reading WHERE id = $1 RETURNING id`, left.ID))
	db.MustExec(`UPDATE river_job SET state = 'available', finalized_at = NULL, scheduled_at = now()
		WHERE (args ->> 'reading')::bigint = $1`, left.ID)
	require.Eventually(t, func() bool {
		return strings.Contains(must(two.Roms.ChipReading(ctx, technician, left.ID)).Note, "is reading U9 by now")
	}, time.Minute, 20*time.Millisecond)
	must(two.Roms.StopReading(ctx, technician, other))

	// Names: the library and who is private are asked for by the count of changes.
	require.Len(t, must(two.Unknowns.Unknowns(ctx, technician, machine.ID)).Open, 1)
	named := must(one.Library.NameType(ctx, technician, library.OwnTypeInput{Number: "HX7200", Function: "timer"}))
	require.Empty(t, must(two.Unknowns.Unknowns(ctx, technician, machine.ID)).Open)
	must(two.Library.ForgetType(ctx, curator, named.ID))
	require.Len(t, must(one.Unknowns.Unknowns(ctx, technician, machine.ID)).Open, 1)
	require.Equal(t, "of Jory", public(t, two, inventory.MachineInput{Provenance: "of Jory"}).Provenance)
	private(t, one, "Jory", "a pilot")
	require.Equal(t, "of a pilot", public(t, two, inventory.MachineInput{Provenance: "of Jory"}).Provenance)
}

// doJobs has long work done until the test ends, or stop is called.
func doJobs(t *testing.T, actions *app.App) (stop func()) {
	end, err := jobs.Start(ctx, actions.Kernel)
	require.NoError(t, err)
	stop = sync.OnceFunc(end)
	t.Cleanup(stop)
	return stop
}
