package app_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/app"
	"frugalheron/app/inventory"
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
	deeds := app.New(db)
	require.NoError(t, deeds.Kernel.RenewLeftOver(ctx))

	data, found, err := accounts.NewSessions(db).FindCtx(ctx, "VtOmsmWtDMyjAZRBwNufxN7E1RyHghmXvuO8JcLrgEU")
	require.NoError(t, err)
	require.True(t, found, "by the hash of its token: %s", tokens(t, db.Select))
	require.Equal(t, "data", string(data))
	require.Zero(t, must(deeds.Inventory.ListMachines(ctx, viewer,
		inventory.MachineList{MachineFilters: inventory.MachineFilters{Search: "penhallow"}, Limit: 5})).Total)
	require.Equal(t, 1, must(deeds.Inventory.ListMachines(ctx, viewer,
		inventory.MachineList{MachineFilters: inventory.MachineFilters{Search: "former pilot"}, Limit: 5})).Total)
	require.Equal(t, []string{"Shed of a former pilot"}, must(deeds.Inventory.Places(ctx, viewer)))

	events := must(deeds.History.History(ctx, viewer, 0, 0, 10)).Events
	require.Len(t, events, 2)
	require.Equal(t, "changed the record: name from Old name to Terminal", events[0].What)
	require.NoError(t, deeds.History.Undo(ctx, curator, events[0].ID))
	machine := must(deeds.Inventory.Machine(ctx, viewer, 1))
	require.Equal(t, "Old name", machine.Name)
	require.Equal(t, "of a former pilot", public(t, deeds, machine).Provenance)
}

func tokens(t *testing.T, read func(any, string, ...any) error) []string {
	kept := []string{}
	require.NoError(t, read(&kept, `SELECT token FROM sessions`))
	return kept
}
