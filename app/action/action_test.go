package action_test

import (
	"context"
	"errors"
	"fmt"
	"testing"

	"github.com/jmoiron/sqlx"
	"github.com/stretchr/testify/require"

	"frugalheron/app/action"
	"frugalheron/store/accounts"
	"frugalheron/store/history"
	"frugalheron/store/inventory"
	"frugalheron/store/pg"
	"frugalheron/store/storetest"
)

var (
	ctx     = context.Background()
	curator = action.Actor{Role: action.Curator}
	viewer  = action.Actor{Role: action.Viewer}
	renamed = action.NewEvent("test: rename", "machine", func(s string, b, a action.Fields) string {
		return "renamed " + s + ": " + action.Changes(b, a)
	}).AlsoOf("place")
)

// renewals notes what is made anew, in order; then follows what each makes due in turn.
type renewals struct {
	seen []string
	then map[string]func(tx *sqlx.Tx) error
}

func (r *renewals) follow(k *action.Kernel) {
	for _, projection := range pg.Projections {
		k.Follow(projection, func(_ context.Context, tx *sqlx.Tx, ids []int64) error {
			r.seen = append(r.seen, fmt.Sprint(projection, " ", ids))
			if next := r.then[projection]; next != nil {
				return next(tx)
			}
			return nil
		})
	}
}

func TestMain(m *testing.M) { storetest.Main(m) }

func newKernel(t *testing.T) (*sqlx.DB, *action.Kernel, *renewals) {
	db := storetest.New(t)
	k, r := action.NewKernel(db), &renewals{then: map[string]func(tx *sqlx.Tx) error{}}
	r.follow(k)
	return db, k, r
}

// What is due is made anew once, in the order of the list, with its ids in order; and what becomes due by that, after
// it.
func TestProjectionsAreMadeAnewInOneOrder(t *testing.T) {
	db, k, r := newKernel(t)
	r.then[pg.ProjectedEntries] = func(tx *sqlx.Tx) error {
		return pg.NoteDue(ctx, tx, pg.ProjectedMachineSum, []int64{2, 7})
	}
	require.NoError(t, k.Do(ctx, curator, action.MayKeepTheRecord, func(tx *sqlx.Tx) error {
		for projection, ids := range map[string][]int64{
			pg.ProjectedMachineAgeing: {3}, pg.ProjectedMachineSum: {9, 2}, pg.ProjectedEntries: {5, 4, 5},
		} {
			if err := pg.NoteDue(ctx, tx, projection, ids); err != nil {
				return err
			}
		}
		return nil
	}))
	require.Equal(t, []string{"entries [4 5]", "machine sum [2 7 9]", "machine ageing [3]"}, r.seen)

	// One that fails takes the whole action with it, and says which.
	r.then[pg.ProjectedMachineAgeing] = func(*sqlx.Tx) error { return errors.New("no ink") }
	err := k.Do(ctx, curator, action.MayKeepTheRecord, func(tx *sqlx.Tx) error {
		if _, err := inventory.InsertMachine(ctx, tx,
			inventory.MachineFields{Accession: "EH-1", Name: "Sorter"}); err != nil {
			return err
		}
		return pg.NoteDue(ctx, tx, pg.ProjectedMachineAgeing, []int64{1})
	})
	require.ErrorContains(t, err, "machine ageing: no ink")
	var n int
	require.NoError(t, db.Get(&n, `SELECT count(*) FROM machine`))
	require.Zero(t, n)
	require.NoError(t, db.Get(&n, `SELECT count(*) FROM projection_due`))
	require.Zero(t, n)

	require.Panics(t, func() { k.Follow(pg.ProjectedEntries, nil) }, "one follows it already")
	require.Panics(t, func() { k.Follow("weather", nil) })
	deaf := action.NewKernel(db)
	require.ErrorContains(t, deaf.Do(ctx, curator, action.MayLook, func(tx *sqlx.Tx) error {
		return pg.NoteDue(ctx, tx, pg.ProjectedEntries, []int64{1})
	}), "nobody makes")
}

// What a migration noted is taken once, whoever takes it; what others have under way is theirs.
func TestWhatIsLeftOverIsTakenOnce(t *testing.T) {
	db, k, r := newKernel(t)
	_, err := db.Exec(`INSERT INTO projection_due (projection, id) VALUES ('machine sum', 1), ('entries', 8)`)
	require.NoError(t, err)
	_, err = db.Exec(`INSERT INTO projection_due (projection, id) VALUES ('machine sum', 1)`) // once more, by another
	require.NoError(t, err)
	other, err := db.Beginx()
	require.NoError(t, err)
	defer other.Rollback() //nolint:errcheck // what it noted is thrown away
	require.NoError(t, pg.NoteDue(ctx, other, pg.ProjectedMachineSum, []int64{99}))
	require.NoError(t, k.RenewLeftOver(ctx))
	require.NoError(t, k.RenewLeftOver(ctx))
	require.Equal(t, []string{"entries [8]", "machine sum [1]"}, r.seen)
}

// A record is changed from the version that was read, and from no other; the event keeps both states.
func TestARecordIsChangedUnderItsVersion(t *testing.T) {
	db, k, _ := newKernel(t)
	id, err := inventory.InsertMachine(ctx, db, inventory.MachineFields{Accession: "EH-1", Name: "Sorter"})
	require.NoError(t, err)
	type shown struct {
		Name    string
		Version int
	}
	machines := action.Records[inventory.Machine, shown]{
		What: "the machine", Lock: inventory.LockMachine, Read: inventory.MachineByID,
		Version: func(m inventory.Machine) int { return m.Version },
		Told:    func(m inventory.Machine) any { return map[string]string{"name": m.Name} },
		View:    func(m inventory.Machine) shown { return shown{m.Name, m.Version} },
		Machine: func(m inventory.Machine) *int64 { return &m.ID },
	}
	rename := func(actor action.Actor, version int, name string) (shown, error) {
		change := action.Change{Actor: actor, Roles: action.MayKeepTheRecord, Event: renamed, ID: id, Version: version}
		return machines.Change(ctx, k, change, func(tx *sqlx.Tx, before inventory.Machine) error {
			if name == before.Name {
				return action.Reject("name", "is its name already")
			}
			fields := before.MachineFields
			fields.Name = name
			return inventory.UpdateMachine(ctx, tx, id, fields)
		})
	}
	changed, err := rename(curator, 1, "Lantern")
	require.NoError(t, err)
	require.Equal(t, "Lantern", changed.Name)
	_, err = rename(curator, 1, "Meridian")
	var stale *action.Stale
	require.ErrorAs(t, err, &stale)
	require.Equal(t, changed, stale.Newer)
	var invalid *action.Invalid
	_, err = rename(curator, changed.Version, "Lantern")
	require.ErrorAs(t, err, &invalid)
	require.Equal(t, "name", invalid.Field)
	_, err = rename(viewer, changed.Version, "Meridian")
	require.ErrorIs(t, err, action.ErrForbidden)
	events, err := history.EventsOf(ctx, db, "machine", id)
	require.NoError(t, err)
	require.Len(t, events, 1)
	words := renamed.Words("it", action.FieldsIn(events[0].Before), action.FieldsIn(events[0].After))
	require.Equal(t, "renamed it: name from Sorter to Lantern", words)
	require.Equal(t, id, *events[0].MachineID)
}

// What is read in a snapshot is of one moment, and each thing is read once; elsewhere it is read each time.
func TestASnapshotIsOfOneMoment(t *testing.T) {
	db, k, _ := newKernel(t)
	count := func(ctx context.Context) (n int) {
		require.NoError(t, k.Reader(ctx).GetContext(ctx, &n, `SELECT count(*) FROM maker`))
		return n
	}
	reads := 0
	once := func(ctx context.Context, id int64) (int, error) {
		return action.Once(ctx, "makers", id, func() (int, error) {
			reads++
			if reads == 1 {
				return 0, errors.New("not now")
			}
			return count(ctx), nil
		})
	}
	before, err := action.InSnapshot(ctx, k, func(ctx context.Context) (int, error) {
		first := count(ctx)
		_, err := db.Exec(`INSERT INTO maker (name) VALUES ('Tarn & Vole')`)
		require.NoError(t, err)
		require.Equal(t, first, count(ctx))
		_, err = once(ctx, 1)
		require.Error(t, err, "what failed is read again")
		for range 3 {
			n, err := once(ctx, 1)
			require.NoError(t, err)
			require.Equal(t, first, n)
		}
		_, err = once(ctx, 2)
		require.NoError(t, err)
		// One within another is the same moment.
		return action.InSnapshot(ctx, k, func(ctx context.Context) (int, error) { return count(ctx), nil })
	})
	require.NoError(t, err)
	require.Equal(t, 3, reads)
	require.Equal(t, before+1, count(ctx))
	for range 2 {
		_, err = once(ctx, 1)
		require.NoError(t, err)
	}
	require.Equal(t, 5, reads)
	_, err = action.InSnapshot(ctx, k, func(ctx context.Context) (int, error) {
		_, err := k.Reader(ctx).ExecContext(ctx, `INSERT INTO maker (name) VALUES ('Nobody')`)
		return 0, err
	})
	require.ErrorContains(t, err, "read-only")
}

// Kinds of events are declared once, of subjects that the history knows.
func TestKindsOfEvents(t *testing.T) {
	require.Equal(t, []string{"machine", "place"}, renamed.Subjects())
	require.Panics(t, func() { renamed.Of("party") })
	require.Panics(t, func() { action.NewEvent("test: rename", "machine", nil) })
	require.True(t, action.IsSubject("lot item"))
	require.False(t, action.IsSubject("weather"))
	require.Nil(t, action.EventOf("of another version"))
	reader := action.ReaderOf(viewer)
	require.Contains(t, reader.Kinds, "machine")
	require.NotContains(t, reader.Kinds, "personal data")
	require.True(t, reader.PublicOnly)
	require.Nil(t, action.ReaderOf(curator).Kinds, "all there are")
	told := map[string]any{"note": "Rose", "marking": "ROSE7",
		"inner": []any{map[string]any{"by": "Rose", "text": "Rose"}}}
	action.RewriteTold(told, func(string) string { return "somebody" })
	require.Equal(t, map[string]any{"note": "somebody", "marking": "ROSE7",
		"inner": []any{map[string]any{"by": "Rose", "text": "somebody"}}}, told)
}

// A row of the store does not get into the history by itself: it has names, and holds things, that are nobody's
// business.
func TestRowsAreNotKeptInTheHistory(t *testing.T) {
	_, k, _ := newKernel(t)
	kept := func(what any) error {
		return k.Do(ctx, curator, action.MayLook, func(tx *sqlx.Tx) error {
			return action.Record(ctx, tx, curator, renamed, 1, nil, nil, what)
		})
	}
	require.ErrorContains(t, kept(accounts.Account{PasswordHash: "secret"}), "row of the store")
	require.ErrorContains(t, kept(&accounts.Account{}), "row of the store")
	require.NoError(t, kept(map[string]string{"name": "Ida"}))
	require.NoError(t, kept(nil))
}

// What was read in a snapshot is not read again in the next one while nobody writes anything, anywhere; whoever writes,
// even beside the application, is seen at once.
func TestNothingIsReadAgainWhileNobodyWrites(t *testing.T) {
	db, k, _ := newKernel(t)
	reads := 0
	makers := func() (n int) {
		n, err := action.InSnapshot(ctx, k, func(ctx context.Context) (int, error) {
			return action.Once(ctx, "makers", 0, func() (n int, err error) {
				reads++
				return n, k.Reader(ctx).GetContext(ctx, &n, `SELECT count(*) FROM maker`)
			})
		})
		require.NoError(t, err)
		return n
	}
	makers()
	first := reads
	for range 3 {
		makers()
	}
	require.Equal(t, first, reads)
	tx, err := db.Beginx()
	require.NoError(t, err)
	before := makers()
	_, err = tx.Exec(`INSERT INTO maker (name) VALUES ('Hollin')`)
	require.NoError(t, err)
	require.Equal(t, before, makers(), "not yet")
	require.NoError(t, tx.Commit())
	require.Equal(t, before+1, makers())
	for i := range 20 {
		_, err := db.Exec(`INSERT INTO maker (name) VALUES ($1)`, fmt.Sprint("Maker ", i))
		require.NoError(t, err)
		require.Equal(t, before+2+i, makers())
	}
}
