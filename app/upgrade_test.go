package app_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/app"
	appcondition "frugalheron/app/condition"
	"frugalheron/app/inventory"
	"frugalheron/core/condition"
	"frugalheron/core/identification"
	"frugalheron/core/teardown"
	"frugalheron/store/accounts"
	"frugalheron/store/pg"
	"frugalheron/store/storetest"
)

// A collection from before comes through: nobody is signed out, its history is read and undone, and names of private
// persons are found in what was written then.
func TestACollectionFromBeforeIsReadAndUndone(t *testing.T) {
	db, err := pg.Open(ctx, storetest.Empty(t))
	require.NoError(t, err)
	defer db.Close()
	migrator, err := pg.NewMigrator(db.DB)
	require.NoError(t, err)
	_, err = migrator.UpTo(ctx, 26)
	require.NoError(t, err)
	for _, old := range []string{
		`INSERT INTO account (login, name, role, password_hash) VALUES ('ida', 'Ida Reed', 'curator', 'x')`,
		`INSERT INTO sessions VALUES ('Secret-token_of_a_browser', 'data', now() + interval '1 day')`,
		`INSERT INTO place (name) VALUES ('Shed of Jory Penhallow')`,
		`INSERT INTO party (name, kind, private, role) VALUES ('Jory Penhallow', 'person', true, 'a former pilot')`,
		`INSERT INTO machine (accession, name, provenance, place_id, version)
			VALUES ('EH-0001', 'Terminal', 'of J. Penhallow', 1, 2)`,
		`INSERT INTO assembly (title, kind) VALUES ('Outside', 'outside')`,
		`INSERT INTO fitting (assembly_id, machine_id, slot, since) VALUES (1, 1, '', current_date)`,
		`INSERT INTO machine_sum (machine_id, place_id) VALUES (1, 1)`,
		`INSERT INTO history (account_id, deed, subject_kind, subject_id, machine_id, before, after) VALUES
			(1, 'create machine', 'machine', 1, 1, NULL, '{"accession": "EH-0001", "name": "Old name"}'),
			(1, 'add party', 'party', 1, NULL, NULL, '{"name": "Jory Penhallow"}'),
			(1, 'change machine', 'machine', 1, 1,
			'{"accession": "EH-0001", "name": "Old name", "provenance": "of J. Penhallow"}',
			'{"accession": "EH-0001", "name": "Terminal", "provenance": "of J. Penhallow"}')`,
	} {
		_, err := db.Exec(old)
		require.NoError(t, err, old)
	}
	_, err = migrator.Up(ctx)
	require.NoError(t, err)
	actions := app.New(db)
	require.NoError(t, actions.Kernel.RenewLeftOver(ctx))

	data, found, err := accounts.NewSessions(db).FindCtx(ctx, "VtOmsmWtDMyjAZRBwNufxN7E1RyHghmXvuO8JcLrgEU")
	require.NoError(t, err)
	require.True(t, found, "by the hash of its token: %s", tokens(t, db.Select))
	require.Equal(t, "data", string(data))
	require.Zero(t, must(actions.Inventory.ListMachines(ctx, viewer,
		inventory.MachineList{MachineFilters: inventory.MachineFilters{Search: "penhallow"}, Limit: 5})).Total)
	require.Equal(t, 1, must(actions.Inventory.ListMachines(ctx, viewer,
		inventory.MachineList{MachineFilters: inventory.MachineFilters{Search: "former pilot"}, Limit: 5})).Total)
	require.Equal(t, []string{"Shed of a former pilot"}, must(actions.Inventory.Places(ctx, viewer)))

	events := must(actions.History.History(ctx, viewer, 0, 0, 10)).Events
	require.Len(t, events, 2)
	require.Equal(t, "changed the record: name from Old name to Terminal", events[0].What)
	require.NoError(t, actions.History.Undo(ctx, curator, events[0].ID))
	machine := must(actions.Inventory.Machine(ctx, viewer, 1))
	require.Equal(t, "Old name", machine.Name)
	require.Equal(t, "of a former pilot", public(t, actions, machine).Provenance)
}

// What was kept under names of former times is read by those of today, in records, in documents and in the history.
func TestFormerNamesAreRead(t *testing.T) {
	db, err := pg.Open(ctx, storetest.Empty(t))
	require.NoError(t, err)
	defer db.Close()
	migrator, err := pg.NewMigrator(db.DB)
	require.NoError(t, err)
	_, err = migrator.UpTo(ctx, 33)
	require.NoError(t, err)
	for _, old := range []string{
		`INSERT INTO machine (accession, name) VALUES ('EH-0001', 'Terminal')`,
		`INSERT INTO machine_sum (machine_id) VALUES (1)`,
		`INSERT INTO assembly (title, kind) VALUES ('Outside', 'outside'), ('Riddle', 'card')`,
		`INSERT INTO fitting (assembly_id, machine_id, slot) VALUES (1, 1, ''), (2, 1, '3')`,
		`INSERT INTO custody (machine_id, role, who, kind, said_on)
			VALUES (1, 'owned-by', 'the seed loft', 'recalled', '1999')`,
		`INSERT INTO survey (machine_id, made_on, looks, finished) VALUES
			(1, '2025-03-04', '{"boards": {"look": "inspected", "note": "dusty", "at": 1}}', true)`,
		`INSERT INTO mystery (assembly_id, body) VALUES (2, '{"hypotheses": [{"id": 1, "text": "a clock"}],
			"evidence": [{"id": 1, "text": "a crystal", "seen": "found"},
				{"id": 2, "text": "a cell", "seen": "absent"}]}')`,
		`INSERT INTO teardown (machine_id, purpose, tray_rows, tray_columns, outcome)
			VALUES (1, 'to look', 2, 2, 'together')`,
		`INSERT INTO teardown_step (teardown_id, body) VALUES (1, '{"off": "Lid", "fasteners":
			[{"count": 4, "kind": "M3", "way": "hole"}, {"count": 1, "kind": "clip", "way": "laid"}]}')`,
		`INSERT INTO history (deed, subject_kind, subject_id, machine_id, before, after) VALUES ('change custody',
			'custody', 1, 1, '{"role": "owned-by", "who": "the loft", "kind": "recalled", "saidOn": "1998"}',
			'{"role": "owned-by", "who": "the seed loft", "kind": "recalled", "saidOn": "1999"}')`,
	} {
		_, err := db.Exec(old)
		require.NoError(t, err, old)
	}
	check := func() {
		actions := app.New(db)
		survey := must(actions.Condition.Condition(ctx, curator, 1)).Surveys[0]
		require.Equal(t, []appcondition.InspectionView{{Subsystem: "boards",
			Inspection: appcondition.Inspection{Coverage: condition.Inspected, Note: "dusty"}}}, survey.Inspections)
		riddle := must(actions.Unknowns.Identification(ctx, curator, 2))
		require.Equal(t, []identification.Presence{identification.Found, identification.Absent},
			[]identification.Presence{riddle.Evidence[0].Presence, riddle.Evidence[1].Presence})
		log := must(actions.Teardown.Teardown(ctx, curator, 1))
		require.Equal(t, "closed with exceptions", log.Outcome)
		require.Equal(t, []teardown.Keeping{teardown.InHole, teardown.Laid},
			[]teardown.Keeping{log.Steps[0].Fasteners[0].Keeping, log.Steps[0].Fasteners[1].Keeping})
	}
	_, err = migrator.Up(ctx)
	require.NoError(t, err)
	check()
	_, err = migrator.DownTo(ctx, 33)
	require.NoError(t, err)
	_, err = migrator.Up(ctx)
	require.NoError(t, err)
	check()

	actions := app.New(db)
	event := must(actions.History.History(ctx, curator, 1, 0, 10)).Events[0]
	require.Contains(t, event.What, "said on from 1998 to 1999")
	require.NoError(t, actions.History.Undo(ctx, curator, event.ID))
	link := must(actions.Bench.Dossier(ctx, curator, 1)).Chain.Links[0]
	require.Equal(t, []string{"the loft", "1998"}, []string{link.Who, link.StatedOn})
}

func tokens(t *testing.T, read func(any, string, ...any) error) []string {
	kept := []string{}
	require.NoError(t, read(&kept, `SELECT token FROM sessions`))
	return kept
}
