package app_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/app/action"
	"frugalheron/app/inventory"
	"frugalheron/app/people"
	storeaccounts "frugalheron/store/accounts"
)

// What lies in the future is decided in the zone of the collection, which a change without one leaves as it is.
func TestDaysAreCountedInTheZoneOfTheCollection(t *testing.T) {
	db, actions := newApp(t)
	id, err := storeaccounts.InsertAccount(ctx, db, storeaccounts.Account{Login: "ida", Name: "Ida", Role: "curator"})
	require.NoError(t, err)
	machine := must(actions.Inventory.CreateMachine(ctx, curator,
		inventory.MachineInput{Accession: "EH-1", Name: "Meridian"}))
	settle := func(zone string) action.Actor {
		kept := must(actions.Inventory.Collection(ctx, curator))
		kept.TimeZone = zone
		must(actions.Inventory.ChangeCollection(ctx, curator, kept.Version, kept.CollectionInput))
		return must(actions.Accounts.ActorByID(ctx, id))
	}
	require.Equal(t, "UTC", must(actions.Accounts.ActorByID(ctx, id)).ZoneName(), "none chosen yet")
	early := settle("Pacific/Kiritimati")
	there := early.Today()
	late := settle("Etc/GMT+12")
	require.Equal(t, "Etc/GMT+12", settle("").ZoneName(), "left out, it stays")
	move := func(by action.Actor, day string) error {
		kept := must(actions.Inventory.Machine(ctx, curator, machine.ID))
		_, err := actions.Inventory.MoveMachine(ctx, by, machine.ID, kept.Version,
			inventory.MachineMove{To: "place", Place: "Loft " + by.ZoneName(), On: day})
		return err
	}
	var invalid *action.Invalid
	require.ErrorAs(t, move(late, there), &invalid, "that day has not come here")
	require.NoError(t, move(late, late.Today()))
	require.NoError(t, move(early, there))
	found := must(actions.People.NotePersonalData(ctx, early, machine.ID,
		people.PersonalDataInput{Medium: "tape", Sort: "letters"}))
	require.Equal(t, there, found.FoundOn)

	db.MustExec(`UPDATE collection SET time_zone = 'Atlantis/Harbour'`) // of a newer application
	require.Equal(t, "UTC", must(actions.Accounts.ActorByID(ctx, id)).ZoneName())

	kept := must(actions.Inventory.Collection(ctx, curator))
	kept.TimeZone = "Estuary/House"
	_, err = actions.Inventory.ChangeCollection(ctx, curator, kept.Version, kept.CollectionInput)
	require.ErrorAs(t, err, &invalid)
	require.Equal(t, "timeZone", invalid.Field)
}
